import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import type { Act } from '@ruddy/core/bench';
import type { ReadingEntry } from '@ruddy/core/bring-up/contract';
import type { Chain } from '@ruddy/core/chain';
import type { Setup } from '@ruddy/core/setups/contract';
import { benchTree, simulate, writeTree } from '@ruddy/simbench';
import { world } from './harness';

const w = world();

async function setupId(name: string): Promise<string> {
  const r = await w.api<{ items: Setup[] }>(`/setups?q=${encodeURIComponent(name)}&retired=true`);
  return r.items[0]!.id;
}

/** What Debian's lspci prints of a bench with the chain of a setup, its card under load or at rest. */
async function listing(name: string, load: boolean, acts: readonly Act[] = []): Promise<string> {
  const { chain } = await w.api<{ chain: Chain }>('/evaluate', {
    method: 'POST',
    body: JSON.stringify({ setupId: await setupId(name) }),
  });
  const order: Act[] = [
    ...acts,
    { act: 'plug', socket: chain.socket ?? '' },
    { act: 'mains', on: true },
    { act: 'dock', on: true },
    { act: 'host', to: 'on' },
    { act: 'approve', how: 'always' },
    { act: 'load', on: load },
  ];
  // The approval comes when the host has started.
  const timed = order.map((act, i) => ({
    ms: act.act === 'approve' || act.act === 'load' ? 30_000 + i : i,
    act,
  }));
  const tree = benchTree(simulate({ chain, seed: 1 }, timed, 60_000));
  if (!tree) throw new Error('no system runs there');
  const dir = mkdtempSync(join(tmpdir(), 'bench-'));
  writeTree(dir, tree);
  const ids = join(import.meta.dirname, '../simbench/pci.ids');
  const args = [
    '-i',
    ids,
    '-O',
    `sysfs.path=${join(dir, 'sys/bus/pci')}`,
    '-A',
    'linux-sysfs',
    '-vvnn',
  ];
  const text = execFileSync('lspci', args, {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  rmSync(dir, { recursive: true });
  return text;
}

/** Put a text into the box as a paste would, and read it. */
async function paste(text: string): Promise<void> {
  await w.page.waitForSelector('rb-report-box textarea');
  await w.page.$eval(
    'rb-report-box textarea',
    (el, t) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/plain', t);
      const box = el as HTMLTextAreaElement;
      // A script's paste has no default action, so the text is put in here, unless the page said it must not go in.
      const kept = box.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
      );
      if (kept) box.value = t;
    },
    text,
  );
}

describe('BU-06 the link check', () => {
  it('opens from Plan at the box to paste into', async () => {
    await w.open(`/setups/${await setupId('Sky survey rig')}/plan`);
    await w.click('Paste a report', 'link');
    await w.sees('Saved readings 1');
    await w.page.waitForFunction(() => document.activeElement?.tagName === 'TEXTAREA');
    await w.sees('26.0 Gb/s, healthy from 21.3');
    await w.sees('It is not the bottleneck.');
  });

  it("this machine's own listing gives a sensible answer", async () => {
    await paste(
      execFileSync('lspci', ['-vv'], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }),
    );
    await w.sees(/\d+ devices read\.|Not read: no line begins like a device/);
    await w.sees(
      /No card behind a link found|as expected|below expected|idle, proves nothing|not read/,
    );
  });

  it.each([
    ['an empty paste', '  ', 'Nothing was pasted.'],
    [
      '5 MB',
      '00:00.0 Host bridge: x\n'.repeat(230_000),
      'Not read: 5.3 million characters, at most 2.0 million.',
    ],
    ['a binary file', '\u0000\u0001ELF', 'Not read: character 1 is no text.'],
    ['prose', 'my card is slow', 'no line begins like a device'],
  ])('%s gets a clear error and changes nothing', async (_name, text, words) => {
    await paste(text);
    await w.sees(words);
    await w.sees('Saved readings 1');
  });

  it('a bench listing: expected beside measured, strip and table', async () => {
    await w.open(`/setups/${await setupId('Sky survey rig')}/bring-up?view=link`);
    await paste(await listing('Sky survey rig', true));
    await w.sees(/Bench card Graphics at 0000:0\d:00\.0, behind the tunnel/);
    await w.sees(
      'The slot shows ×4 Gen3. The rate is not read yet; a half-rate cable looks the same here.',
    );
    await w.sees('Slot width and generation: read');
    await w.sees('Copy rate to the card: not read');
    expect(await w.page.$$eval('.ribbon.core', (r) => r.length)).toBe(1);
    await w.sees('12 devices read.');
  });

  it('half a width read from a listing is named, with its reason', async () => {
    await paste(
      await listing('Sky survey rig', true, [
        { act: 'fault', id: 'card-not-seated', strength: 0.5 },
      ]),
    );
    await w.sees(
      'The link came up with less than expected. Likeliest first: the card trained with fewer lanes',
    );
    await w.sees('At the card; the readings show it.');
    await w.click('Put the report aside');
    await w.sees('23.8 of 26.0 Gb/s, 92 %: healthy.');
  });

  it.each([
    ['22', '22.0 of 26.0 Gb/s, 85 %: healthy.'],
    ['24', '24.0 of 26.0 Gb/s, 92 %: healthy.'],
    ['26', '26.0 of 26.0 Gb/s, 100 %: healthy.'],
    ['18', '18.0 of 26.0 Gb/s, 69 %: poor. Likeliest first:'],
    ['3', '3 GB/s would be 24.0 Gb/s, which is healthy here. Is the unit right?'],
    ['30', '115 %: more than the plan allows. It contradicts:'],
    ['50', '192 %: impossible. Check unit and direction.'],
  ])('%s Gb/s typed on a class C chain', async (value, words) => {
    await w.fill('Copy rate', value);
    await w.sees(words);
  });

  it('idle or pageable is kept, not graded, and says why', async () => {
    await w.fill('Copy rate', '24');
    await w.click('pageable memory');
    await w.sees('Kept, not graded: pageable memory is copied once more on the way.');
    await w.click('pinned memory');
    await w.click('idle', 'button');
    await w.sees('Kept, not graded: read while idle, so it proves nothing.');
    await w.click('under load', 'button');
  });

  it('a stored reading survives a reload, on strip and record', async () => {
    await w.fill('Copy rate', '22,4');
    await w.click('Save reading');
    await w.sees('Saved readings 2');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('22.4 of 26.0 Gb/s, 86 %: healthy.');
    expect(await w.page.$eval('.strip svg', (s) => s.textContent)).toContain(
      'measured 22.4 Gb/s · 86 % · healthy',
    );
    const id = await setupId('Sky survey rig');
    const kept = await w.api<{ items: ReadingEntry[] }>(`/setups/${id}/readings`);
    expect(kept.items[0]).toMatchObject({ grade: 'healthy', gbps: 22.4 });
    await w.click('Record', 'link');
    await w.sees('22.4 of 26.0 Gb/s, 86 %: healthy.');
  });

  it('empty readings are not stored, wrong figures marked', async () => {
    await w.open(`/setups/${await setupId('Sky survey rig')}/bring-up?view=link`);
    await w.click('Save reading');
    await w.sees('Not saved. Nothing read yet: type a rate or a width, or paste a report');
    await w.fill('Copy rate', 'fast');
    await w.sees('"fast" is not a number');
    expect(await w.page.$$eval('[aria-invalid=true]', (l) => l.length)).toBe(1);
    await w.sees('Saved readings 2');
  });

  it('17.6 on a first-generation dock is healthy', async () => {
    const id = await setupId('Loan cart');
    await w.open(`/setups/${id}/plan`);
    await w.choose('Host', 'L-16', 'Tarnwick L-16');
    await w.pick('Port', /^left, rear/);
    await w.sees('the dock holds this chain to 17.6 Gb/s, 58 % of the 30.5 the rest can carry.');
    await w.click('Bring-up', 'link');
    await w.click('Link check', 'link');
    await w.sees('17.6 Gb/s, healthy from 14.4');
    await w.page.keyboard.type('17.6');
    await w.sees('17.6 of 17.6 Gb/s, 100 %: healthy.');
  });
});

describe('PL-02 a host from a report', () => {
  it('fills the ports and says what stays to be found out', async () => {
    await w.open('/setups');
    await w.click('New setup', 'button');
    await w.click('Not sure what you have? Describe my host');
    await w.click('Or let the machine tell: paste what its system prints');
    await paste(await listing('Lecture hall loan', true));
    await w.page
      .waitForSelector('mat-dialog-content [role=status], mat-dialog-content [role=alert]')
      .catch(async () => {
        throw new Error(await w.text('mat-dialog-content'));
      });
    await w.sees('1 port filled in from the report.');
    await w.sees('Maker and model are not on the bus');
    await w.fill('Maker', 'Harnsey');
    await w.fill('Model', 'L-99');
    await w.click('Continue');
    await w.sees('Describe the host');
    await w.click('Add and choose it');
    await w.page.waitForFunction(() => !document.querySelector('mat-dialog-container'));
    const parts = await w.api<{ items: { spec: { sockets: object[] } }[] }>(
      '/parts?kind=host&q=L-99',
    );
    expect(parts.items[0]?.spec.sockets[0]).toMatchObject({
      standard: 'thunderbolt-3',
      controller: 'separate',
      pcieGen: 3,
      lanes: 2,
    });
  });

  it('without rights it fills what it can and gives the command', async () => {
    await w.click('Not sure what you have? Describe my host');
    await w.click('Or let the machine tell: paste what its system prints');
    await paste(
      '00:02.0 VGA compatible controller: Harnsey graphics\n\tCapabilities: <access denied>',
    );
    await w.sees('Rates, widths and ports need rights. Run this and paste again: sudo lspci -vv');
    await w.page.keyboard.press('Escape');
  });
});
