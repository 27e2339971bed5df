import { describe, expect, it } from 'vitest';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

describe('WS-02 house rules on the page', () => {
  it('a value needs reason and limits, counts, and returns', async () => {
    const label = 'Longest passive cable that carries USB4 40';
    await w.open('/workshop/rules');
    await w.sees('50 rules, all at their default.');
    await w.fill('Find a rule', 'longest passive cable that carries usb4 40');
    await w.fill('Own value', '99');
    await w.click('Save changes');
    await w.sees(`${label}: from 200 to 3000 mm`);
    await w.fill('Find a rule', 'longest passive cable that carries usb4 40');
    await w.fill('Own value', '1300');
    await w.click('Save changes');
    await w.sees('Enter why this differs from the default');
    await w.fill('Find a rule', 'longest passive cable that carries usb4 40');
    await w.fill('Reason', 'ours were tested');
    await w.sees('1 changed, not saved');
    await w.click('Save changes');
    await w.sees('1 of 50 rules set by this workshop.');
    const { items } = await w.api<{ items: Setup[] }>('/setups?q=dome');
    await w.open(`/setups/${items[0]!.id}/plan`);
    await w.sees('Works: every hop carries 26.0 Gb/s or more, and 5 of 5 like it worked.');
    await w.open('/workshop/rules');
    await w.click(`Back to the default: ${label}`);
    await w.click('Save changes');
    await w.sees('50 rules, all at their default.');
  });
});

describe('WS-03 the examples', () => {
  it('says what goes and what stays before the act; own data stays', async () => {
    const { items } = await w.api<{ items: Setup[] }>('/setups?q=dome');
    await w.open(`/setups/${items[0]!.id}/plan`);
    await w.click('Setup actions');
    await w.click('Clone');
    await w.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('.name input')?.value === 'Dome desk copy',
    );
    await w.open('/workshop/data');
    await w.sees('These 6 stay and become yours:');
    await w.sees('host Harnsey L-13: the setup "Dome desk copy" uses it');
    await w.click('Remove the examples …');
    await w.sees('Removing cannot be undone.');
    await w.click('Remove the examples');
    await w.sees('Removed 22 setups, 98 parts, 48 outcomes; 6 kept because yours need them.');
    await w.open('/setups');
    await w.sees('1 setup: 1 needs care.');
    expect(await w.page.$$('.demo')).toHaveLength(0);
  });

  it('foreign files store nothing; a good one loads whole', async () => {
    await w.open('/workshop/data');
    const upload = async (name: string, text: string) => {
      await w.page.evaluate(
        (n, t) => {
          const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
          const data = new DataTransfer();
          data.items.add(new File([t], n, { type: 'application/json' }));
          input.files = data.files;
          input.dispatchEvent(new Event('change'));
        },
        name,
        text,
      );
    };
    await upload('broken.json', '{"format": ');
    await w.sees('Not saved from broken.json. Not JSON: it ends in the middle');
    await upload('other.json', '{"format":"other"}');
    await w.sees('Not saved from other.json. format: format: must be "ruddy-bridge/bundle"');
    const bundle = await w.api<object>('/bundle');
    await upload('again.json', JSON.stringify(bundle));
    await w.sees(
      'From again.json: nothing new; already here 1 setup, 6 parts, 2 items, 1 note on items, 1 event.',
    );
  });
});
