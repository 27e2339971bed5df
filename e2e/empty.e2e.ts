import { describe, expect, it } from 'vitest';
import { world } from './harness';

const w = world({ demo: false });

describe('an empty workshop', () => {
  it('starts from what is in front of you', async () => {
    await w.open('/setups');
    await w.sees('No setups yet');
    await w.open('/parts/host');
    await w.sees('0 hosts in the catalogue yet. Add the first one.');
    await w.open('/compatibility/table');
    await w.sees('0 chains logged yet: outcomes are logged on the Record of a setup.');
    await w.open('/workshop/data');
    await w.sees('0 examples are stored; everything here is yours.');
  });

  it('an address that leads nowhere says so', async () => {
    await w.open('/setups/00000000-0000-7000-8000-00000000ffff/plan');
    await w.sees('No setup has this address; 0 were opened.');
    await w.open('/nowhere');
    await w.sees('This address leads to 0 pages.');
    expect((await fetch(`${w.url}/chunk-GONE1234.js`)).status).toBe(404);
  });

  it('a new host can be described in the catalogue with two ports', async () => {
    await w.open('/parts/host/new');
    await w.fill('Maker', 'Own');
    await w.fill('Model', 'Bench PC');
    await w.click(/Add a port/);
    await w.click('Add to the catalogue');
    await w.sees('Saved.');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('Port 2: right');
  });
});
