import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideHttpClient } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { Setup } from '@ruddy/core/setups/contract';
import { storedSetup as stored } from './stored-setup';
import { SetupEditor } from './setup-editor';

const url = `/api/setups/${stored.id}`;

describe('the editor of a setup', () => {
  let editor: SetupEditor;
  let http: HttpTestingController;

  beforeEach(() => {
    vi.useFakeTimers();
    localStorage.clear();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting(), SetupEditor],
    });
    editor = TestBed.inject(SetupEditor);
    http = TestBed.inject(HttpTestingController);
    editor.open(stored.id);
    http.expectOne(url).flush(stored);
    http.match('/api/evaluate');
  });
  afterEach(() => vi.useRealTimers());

  it('saves once, 800 ms after the last change', () => {
    editor.change({ name: 'Dome' });
    vi.advanceTimersByTime(700);
    editor.change({ name: 'Dome desk' });
    vi.advanceTimersByTime(700);
    http.expectNone(url);
    vi.advanceTimersByTime(200);
    const req = http.expectOne(url);
    expect(req.request.method).toBe('PATCH');
    expect(req.request.headers.get('If-Match')).toBe('"3"');
    expect(req.request.body).toMatchObject({ name: 'Dome desk' });
    expect(editor.save()).toEqual({ kind: 'saving' });
    req.flush({ ...stored, name: 'Dome desk', rev: 4 });
    expect(editor.save().kind).toBe('saved');
    expect(localStorage.length).toBe(0);
  });

  it('takes over a fact, keeps unsaved edits and undo', () => {
    editor.change({ notes: 'fan swapped' });
    const theirs = { ...stored, installed: { ...stored.installed, driver: '41.2' }, rev: 4 };
    editor.adopt(theirs);
    expect(editor.fields()).toMatchObject({ notes: 'fan swapped', installed: { driver: '41.2' } });
    vi.advanceTimersByTime(800);
    const req = http.expectOne(url);
    expect([req.request.headers.get('If-Match'), req.request.body]).toMatchObject([
      '"4"',
      { notes: 'fan swapped' },
    ]);
    expect(Object.keys(req.request.body as object).sort()).toEqual(['notes', 'session']);
    req.flush({ ...theirs, notes: 'fan swapped', rev: 5 });
    editor.undo();
    expect(editor.fields()).toMatchObject({ notes: '', installed: { driver: '41.2' } });
  });

  it('takes nothing over from an older revision or another setup', () => {
    editor.adopt({ ...stored, name: 'Older', rev: 3 });
    editor.adopt({ ...stored, id: '00000000-0000-7000-8000-00000000000b', name: 'Other', rev: 9 });
    expect(editor.fields()?.name).toBe(stored.name);
    expect(editor.save().kind).toBe('saved');
  });

  it('undo posts the way back', () => {
    editor.change({ state: 'live' });
    editor.flush();
    http.expectOne(url).flush({ ...stored, state: 'live', rev: 4 });
    editor.undo();
    expect(editor.fields()?.state).toBe('planned');
    editor.flush();
    const back = http.expectOne(url);
    expect(back.request.body).toMatchObject({ state: 'planned' });
    expect(back.request.headers.get('If-Match')).toBe('"4"');
    expect(editor.canRedo()).toBe(true);
  });

  it('an unsent edit waits for the next opening', () => {
    editor.change({ notes: 'by hand' });
    editor.flush();
    http.expectOne(url).error(new ProgressEvent('offline'), { status: 0 });
    expect(editor.save()).toEqual({
      kind: 'failed',
      why: 'The server was not reached; nothing was stored',
    });
    expect(editor.fields()?.notes).toBe('by hand');
    const again = TestBed.runInInjectionContext(() => new SetupEditor());
    again.open(stored.id);
    http.expectOne((r) => r.url === url && r.method === 'GET').flush(stored);
    expect(http.expectOne((r) => r.url === url && r.method === 'PATCH').request.body).toMatchObject(
      { notes: 'by hand' },
    );
  });

  it('an answer that comes after another setup was opened touches neither', () => {
    const other = { ...stored, id: '00000000-0000-7000-8000-00000000000b', name: 'Other', rev: 1 };
    editor.change({ name: 'Dome' });
    editor.flush();
    const late = http.expectOne(url);
    editor.open(other.id);
    http.expectOne(`/api/setups/${other.id}`).flush(other);
    late.flush({ ...stored, name: 'Dome', rev: 4 });
    vi.advanceTimersByTime(2000);
    expect(editor.stored()?.id).toBe(other.id);
    expect(editor.fields()?.name).toBe('Other');
    http.expectNone((r) => r.method === 'PATCH');
    expect(localStorage.length).toBe(0);
  });

  it('a setup that answers late does not replace the one opened since', () => {
    editor.open('a1');
    const slow = http.expectOne('/api/setups/a1');
    editor.open('b1');
    http.expectOne('/api/setups/b1').flush({ ...stored, id: 'b1' });
    expect(slow.cancelled).toBe(true);
    expect(editor.stored()?.id).toBe('b1');
  });

  it('typing during a save is sent on top of it', () => {
    editor.change({ notes: 'one' });
    editor.flush();
    const first = http.expectOne(url);
    editor.change({ notes: 'one two' });
    first.flush({ ...stored, notes: 'one', rev: 4 });
    expect(
      (JSON.parse(localStorage.getItem(`ruddy.unsent.${stored.id}`) ?? '{}') as { base?: Setup })
        .base?.rev,
    ).toBe(4);
    vi.advanceTimersByTime(900);
    const second = http.expectOne(url);
    expect(second.request.headers.get('If-Match')).toBe('"4"');
    expect(second.request.body).toMatchObject({ notes: 'one two' });
  });

  it('a conflict shows both, and the pick is stored', () => {
    editor.change({ name: 'Mine' });
    editor.flush();
    const theirs = { ...stored, name: 'Theirs', notes: 'added', rev: 5 };
    http
      .expectOne(url)
      .flush(
        { title: 'Changed elsewhere', status: 412, current: theirs },
        { status: 412, statusText: 'Precondition Failed' },
      );
    expect(editor.save()).toMatchObject({ kind: 'conflict', fields: ['name'] });
    expect(editor.fields()?.name).toBe('Mine');
    editor.settle(() => 'mine');
    const req = http.expectOne(url);
    expect(req.request.headers.get('If-Match')).toBe('"5"');
    expect(req.request.body).toMatchObject({ name: 'Mine' });
    expect(editor.fields()).toMatchObject({ name: 'Mine', notes: 'added' });
  });

  it('undo after a merge leaves what another person stored', () => {
    editor.change({ name: 'Mine' });
    editor.flush();
    const theirs = { ...stored, notes: 'added by another person', rev: 5 };
    http
      .expectOne(url)
      .flush({ title: 'x', status: 412, current: theirs }, { status: 412, statusText: 'x' });
    const mine = http.expectOne(url);
    mine.flush({ ...theirs, name: 'Mine', rev: 6 });
    editor.undo();
    expect(editor.fields()).toMatchObject({ name: stored.name, notes: 'added by another person' });
    editor.redo();
    expect(editor.fields()).toMatchObject({ name: 'Mine', notes: 'added by another person' });
  });

  it('changes that do not clash are merged without a question', () => {
    editor.change({ name: 'Mine' });
    editor.flush();
    http
      .expectOne(url)
      .flush(
        { title: 'x', status: 412, current: { ...stored, state: 'live', rev: 5 } },
        { status: 412, statusText: 'x' },
      );
    expect(http.expectOne(url).request.body).toMatchObject({ name: 'Mine' });
    expect(editor.fields()).toMatchObject({ name: 'Mine', state: 'live' });
  });
});
