import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { of, throwError } from 'rxjs';
import type { BenchReading } from '@ruddy/core/bench/contract';
import { reportSchema } from '@ruddy/core/bring-up';
import { ApiError } from '../platform/api/api-client';
import { BenchesData } from '../setups/benches';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { FromBench, type BenchTaken } from './from-bench';

const errors = (corrected: number) => ({ corrected, nonfatal: 0, fatal: 0 });
/** A card straight on a port of the host, after so many corrected errors. */
const report = (corrected: number) =>
  reportSchema.parse({
    format: 'ruddy-bridge/report',
    version: 1,
    devices: [
      {
        address: '0000:00:01.0',
        port: 'root',
        cap: { gts: 16, lanes: 4 },
        now: { gts: 16, lanes: 4 },
        errors: errors(corrected),
      },
      {
        address: '0000:01:00.0',
        parent: '0000:00:01.0',
        classCode: '0300',
        port: 'endpoint',
        errors: errors(corrected),
      },
    ],
  });

async function panel(over: object = {}) {
  const did: string[] = [];
  let reads = 0;
  const data = {
    list: () => of({ items: [{ id: 'b', name: 'Table', state: { stage: 'bound' } }] }),
    act: (_: string, a: { act: string }) => (did.push(a.act), of({})),
    clock: (_: string, c: { stepMs: number }) => (did.push(`${c.stepMs} ms`), of({})),
    read: () => {
      did.push('read');
      const n = reads++;
      return of({
        state: { downs: n, load: true },
        report: report(n * 12),
        copy: null,
      } as unknown as BenchReading);
    },
    ...over,
  };
  const evaluation = { predicted: { link: { kind: 'direct' } } };
  const editor = { stored: signal({ id: 's', name: 'Desk' }), judgement: signal({ evaluation }) };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: BenchesData, useValue: data },
      { provide: SetupEditor, useValue: editor },
      { provide: LinkReadings, useValue: { house: signal({}) } },
    ],
  });
  const fixture = TestBed.createComponent(FromBench);
  const taken: BenchTaken[] = [];
  fixture.componentInstance.taken.subscribe((t) => taken.push(t));
  await fixture.whenStable();
  const el = fixture.nativeElement as HTMLElement;
  const press = async (name: string) => {
    [...el.querySelectorAll('button')].find((b) => b.textContent?.includes(name))?.click();
    await fixture.whenStable();
  };
  return { fixture, el, did, taken, press };
}

describe('BU-15 a reading from a bench', () => {
  it('under load: the bench settles, then it is read', async () => {
    const p = await panel();
    await p.press('Read under load');
    expect([p.did, p.taken.length, p.taken[0]?.counts]).toEqual([
      ['load', '5000 ms', 'read'],
      1,
      null,
    ]);
  });

  it('as it is: nothing is touched', async () => {
    const p = await panel();
    await p.press('Read as it is');
    expect(p.did).toEqual(['read']);
  });

  it('minutes of load: counters before and after, and drops', async () => {
    const p = await panel();
    p.fixture.componentRef.setInput('counts', true);
    await p.fixture.whenStable();
    await p.press('minutes and count');
    expect(p.did).toEqual([
      'read',
      'load',
      `${p.fixture.componentInstance.minutes() * 60_000} ms`,
      'read',
    ]);
    expect(p.taken[0]?.counts).toMatchObject({ correctedBefore: 0, correctedAfter: 12, downs: 1 });
  });

  it('without system, bench or consent nothing is handed on', async () => {
    const dark = await panel({ read: () => of({ state: { downs: 0 }, report: null, copy: null }) });
    await dark.press('Read as it is');
    expect(dark.el.querySelector('[role=alert]')?.textContent).toContain(
      'no system runs on that bench',
    );
    expect(dark.taken).toEqual([]);
    TestBed.resetTestingModule();
    const gone = await panel({
      read: () => throwError(() => new ApiError({ type: '', title: 'No such bench', status: 404 })),
    });
    await gone.press('Read as it is');
    expect(gone.el.querySelector('[role=alert]')?.textContent).toContain(
      'Nothing read. No such bench',
    );
    TestBed.resetTestingModule();
    const none = await panel({ list: () => of({ items: [] }) });
    expect(none.el.textContent).toContain('0 benches with this setup.');
  });
});
