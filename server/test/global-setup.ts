import type { TestProject } from 'vitest/node';
import { connect } from '../src/db/connect';
import { migrate } from '../src/db/migrate';
import { defineModels } from '../src/db/models';
import { openCluster } from '../../scripts/lib/cluster.mjs';
import { TEST_DATA_DIR } from '../../scripts/lib/paths.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    adminUrl: string;
  }
}

/** One cluster for the run, without fsync, and a migrated template that every test file copies. */
export default async function setup(project: TestProject): Promise<() => void> {
  const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  cluster.psql('postgres', 'DROP DATABASE IF EXISTS ruddy_template WITH (FORCE)');
  cluster.psql('postgres', 'CREATE DATABASE ruddy_template');
  const db = connect(cluster.url('ruddy_template'));
  defineModels(db);
  await migrate(db);
  await db.close();
  project.provide('adminUrl', cluster.url('postgres'));
  return () => cluster.close();
}
