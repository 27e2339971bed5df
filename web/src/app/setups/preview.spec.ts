import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { loadSchema } from '@ruddy/core/chain';
import { NO_SETTINGS, NOTHING_INSTALLED } from '@ruddy/core/parts';
import type { FixRow, SetupChange } from '@ruddy/core/plan/contract';
import { NO_SLOTS } from '@ruddy/core/setups';
import type { Setup } from '@ruddy/core/setups/contract';
import { SetupEditor } from './setup-editor';
import { fieldsOf } from './setup-patches';
import { storedSetup } from './stored-setup';
import { patchOf, Preview } from './preview';

const stored: Setup = {
  ...storedSetup,
  slots: {
    ...NO_SLOTS,
    path: ['k1', 'k2'],
    supplies: [{ part: 's1', feeds: 'card' }],
    screens: [{ part: 'v1', by: 'dock', plug: 'hdmi' }],
  },
  loads: [loadSchema.parse({ kind: 'hub' }), loadSchema.parse({ kind: 'lan' })],
  settings: { ...NO_SETTINGS, lid: 'closed' },
};

describe('the patch a change amounts to', () => {
  const fields = fieldsOf(stored);
  const cases: [string, SetupChange, object][] = [
    [
      'a setting keeps the others',
      { settings: { approval: 'always' } },
      { settings: { ...stored.settings, approval: 'always' } },
    ],
    [
      'a version',
      { installed: { dockFirmware: '1.8' } },
      { installed: { ...NOTHING_INSTALLED, dockFirmware: '1.8' } },
    ],
    ['a load taken off', { dropLoad: 0 }, { loads: [stored.loads[1]] }],
    ['another port', { socket: 'right' }, { slots: { socket: 'right' } }],
    [
      'a piece of the path in its place',
      { part: { slot: 'path', index: 1, id: 'k9' } },
      { slots: { path: ['k1', 'k9'] } },
    ],
    [
      'a supply that feeds what the old one fed',
      { part: { slot: 'supply', index: 0, id: 's9' } },
      { slots: { supplies: [{ part: 's9', feeds: 'card' }] } },
    ],
    ['another dock', { part: { slot: 'dock', index: 0, id: 'd9' } }, { slots: { dock: 'd9' } }],
    [
      'a screen hung on the card',
      { screen: { index: 0, by: 'card' } },
      { slots: { screens: [{ part: 'v1', by: 'card', plug: 'hdmi' }] } },
    ],
    [
      'another screen',
      { part: { slot: 'screen', index: 0, id: 'v9' } },
      { slots: { screens: [{ part: 'v9', by: 'dock', plug: 'hdmi' }] } },
    ],
  ];
  it.each(cases)('%s', (_what, change, patch) => {
    expect(patchOf(fields, change)).toEqual(patch);
  });

  it('with no supply chosen yet the new one feeds both', () => {
    const none = { ...fields, slots: NO_SLOTS };
    expect(patchOf(none, { part: { slot: 'supply', index: 0, id: 's9' } })).toEqual({
      slots: { supplies: [{ part: 's9', feeds: 'both' }] },
    });
  });
});

describe('trying a change', () => {
  const fix: FixRow = {
    words: 'Open the lid',
    change: { settings: { lid: 'open' } },
    verdict: 'works',
    coverage: { known: 7, of: 7 },
    usable: null,
    price: null,
    stops: 0,
    care: 0,
  };
  let http: HttpTestingController;
  let editor: SetupEditor;
  let trial: Preview;

  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting(), SetupEditor, Preview],
    });
    http = TestBed.inject(HttpTestingController);
    editor = TestBed.inject(SetupEditor);
    trial = TestBed.inject(Preview);
    editor.open(stored.id);
    http.expectOne(`/api/setups/${stored.id}`).flush(stored);
    http.expectOne('/api/evaluate').flush({ sentence: 'before' });
    TestBed.tick();
  });

  it('shows its effect beside the present, stored nowhere', () => {
    trial.start(fix);
    const asked = http.expectOne('/api/evaluate');
    expect(
      (asked.request.body as { chain: { settings: { lid: string } } }).chain.settings.lid,
    ).toBe('open');
    asked.flush({ sentence: 'after' });
    expect([trial.shown()?.sentence, trial.before()?.sentence]).toEqual(['after', 'before']);
    expect(editor.fields()?.settings.lid).toBe('closed');
    trial.putBack();
    expect([trial.shown()?.sentence, trial.before()]).toEqual(['before', null]);
  });

  it('kept, it becomes an edit that undo takes back', () => {
    trial.start(fix);
    http.expectOne('/api/evaluate').flush({ sentence: 'after' });
    trial.keep();
    expect(editor.fields()?.settings.lid).toBe('open');
    expect(trial.now()).toBeNull();
    editor.undo();
    expect(editor.fields()?.settings.lid).toBe('closed');
  });

  it('another edit ends it, late answers are not shown', () => {
    trial.start(fix);
    const late = http.expectOne('/api/evaluate');
    editor.change({ name: 'Dome' });
    TestBed.tick();
    expect(late.cancelled).toBe(true);
    expect(trial.now()).toBeNull();
  });

  it('of two changes asked in turn the last counts', () => {
    trial.start(fix);
    const first = http.expectOne('/api/evaluate');
    trial.start({ ...fix, words: 'Close it' });
    expect(first.cancelled).toBe(true);
    http.expectOne('/api/evaluate').flush({ sentence: 'second' });
    expect(trial.now()?.fix.words).toBe('Close it');
  });

  it('a refusal is said and nothing is tried', () => {
    trial.start(fix);
    http
      .expectOne('/api/evaluate')
      .flush({ title: 'Not a chain' }, { status: 422, statusText: 'no' });
    expect(trial.now()).toBeNull();
    expect(trial.problem()).toContain('Not a chain');
  });
});
