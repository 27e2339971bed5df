import { SearchModel } from '../buy/models/search';
import { lock } from '../platform/db/locks';
import { inTransaction } from '../platform/db/transaction';
import { readFile } from 'node:fs/promises';
import { bundleSchema, type DemoReport } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE, type Services } from '../platform/http/route';
import { loadBundle } from './bundle-load';
import { putSetting, readSetting } from '../setups/settings';
import { FeedModel } from './models/feed';
import { demoReport, removeDemoRows } from './queries/demo-rows';

const FIRST_START = 'demo.first-start';

/** Remove the demo data; what own data points to stays and becomes adopted. Returns what was done. */
export async function removeDemo(): Promise<DemoReport> {
  const report = await demoReport();
  await inTransaction(async () => {
    await removeDemoRows(['remove_demo_stated', 'remove_demo_runs']);
    await SearchModel.destroy({ where: { origin: 'demo' } });
    await FeedModel.destroy({ where: { origin: 'demo' } });
    await removeDemoRows(['remove_demo_loans', 'remove_demo']);
  });
  return report;
}

/** On the first start only, load the demo bundle, or note that none was wanted. Later starts leave it alone. */
export async function firstStart(
  s: Services,
  demoFile: string | null,
): Promise<'loaded' | 'empty' | 'later'> {
  return inTransaction(async () => {
    await lock('firstStart');
    if (await readSetting(FIRST_START)) return 'later';
    const state = demoFile === null ? 'empty' : 'loaded';
    if (demoFile !== null) {
      const bundle = bundleSchema.parse(JSON.parse(await readFile(demoFile, 'utf8')));
      await loadBundle(bundle, { origin: 'demo', by: THIS_MACHINE.id, now: s.now() });
    }
    await putSetting(FIRST_START, state, { at: s.now(), by: THIS_MACHINE.id });
    return state;
  });
}
