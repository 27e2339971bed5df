import { cruise } from 'dependency-cruiser';
import { ROOT } from '../lib/paths.mjs';

const RULE = { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } };

/** Circles of imports among source files, those of types included: each is a list of paths. */
export async function circlesOfFiles() {
  const before = process.cwd();
  process.chdir(ROOT);
  try {
    const { output } = await cruise(['core/src', 'server/src', 'web/src', 'simbench/src'], {
      tsPreCompilationDeps: true,
      doNotFollow: { path: 'node_modules' },
      exclude: { path: 'node_modules|\\.(spec|test)\\.ts$' },
      validate: true,
      ruleSet: { forbidden: [RULE] },
    });
    return output.summary.violations.map((v) => [v.from, ...v.cycle.map((c) => c.name)]);
  } finally {
    process.chdir(before);
  }
}
