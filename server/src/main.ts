import { createServer } from 'node:http';
import { pino } from 'pino';
import { createApp } from './app';
import { readConfig } from './config';
import { connect } from './platform/db/connect';
import { defineModels } from './models';
import { firstStart } from './workshop/demo';
import { scheduleFeeds } from './workshop/feeds';
import { stopJobs } from './platform/jobs/jobs';
import { hasKeeper } from './workshop/members';
import { prepareDatabase } from './prepare';
import { scheduleBackups } from './workshop/backups';
import { Streams } from './platform/streams/streams';

const FINISH_MS = 5000;
const HEAD_MS = 15_000;
const BODY_MS = 300_000;
const NO_KEEPER = `other machines could reach this, and no keeper has a password yet.
  Give one first, on this machine alone: npm run keeper -- NAME   (or in the page under Workshop, Members)`;

function fail(problem: string): never {
  process.stderr.write(`ruddy-bridge: ${problem}\n`);
  process.exit(1);
}

async function main(): Promise<void> {
  const read = readConfig(process.env);
  if (!read.ok) fail(read.problem);
  const { config } = read;
  const logger = pino({ level: config.log });
  const db = connect(config.databaseUrl);
  defineModels(db);
  const grounds = {
    now: config.now,
    unexpected: (err: unknown) => logger.error({ err }, 'unexpected'),
  };
  const streams = new Streams(grounds, config.databaseUrl);
  const services = {
    ...grounds,
    streams,
    ...(config.signIn && { access: { secure: config.names.publicUrl?.protocol === 'https:' } }),
    ...(config.backups && { backups: { ...config.backups, url: config.databaseUrl } }),
  };
  try {
    const { migrations, runs } = await prepareDatabase();
    if (migrations.length > 0) logger.info({ migrations }, 'schema brought up to date');
    if (runs > 0) logger.info({ runs }, 'figures of runs made anew');
    const demo = await firstStart(services, config.demoFile);
    if (demo === 'loaded') logger.info('demo data loaded');
  } catch (error) {
    // The person reads the one line of fail(); the whole story is for those who asked for a log.
    logger.info({ err: error }, 'start');
    fail(
      `the database could not be prepared: ${error instanceof Error ? error.message : String(error)}`,
    );
  }

  if (config.signIn && !(await hasKeeper())) {
    await db.close();
    fail(NO_KEEPER);
  }
  const { webDir, names, proxies } = config;
  // Who sends its head or body a letter at a time does not keep a place for long.
  const limits = {
    headersTimeout: HEAD_MS,
    requestTimeout: BODY_MS,
    connectionsCheckingInterval: 5000,
  };
  const server = createServer(limits, createApp(services, { webDir, logger, names, proxies }));
  const stopBackups = scheduleBackups(services);
  const stopFeeds = scheduleFeeds(services);
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    // Streams end first: a server with an open answer never closes.
    void streams.close();
    const close = () =>
      void Promise.allSettled([stopJobs(), stopFeeds(), stopBackups()]).finally(() =>
        db.close().finally(() => process.exit(0)),
      );
    server.close(close);
    server.closeIdleConnections();
    // Requests that do not finish in time are cut, so that the database can be closed.
    setTimeout(() => server.closeAllConnections(), FINISH_MS).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  // The starter is gone without a word: nobody else would stop this process.
  process.on('disconnect', stop);
  server.on('error', (error: NodeJS.ErrnoException) => {
    fail(
      error.code === 'EADDRINUSE'
        ? `port ${config.port} is taken; set PORT to another one`
        : error.message,
    );
  });
  server.listen(config.port, config.host, () => {
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : config.port;
    process.send?.({ ready: true, port });
    logger.info({ port }, 'listening');
  });
}

void main();
