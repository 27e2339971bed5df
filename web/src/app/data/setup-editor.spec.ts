import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideHttpClient } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { Setup } from '@ruddy/core/api';
import { SetupEditor } from './setup-editor';

const stored: Setup = {
  id: '00000000-0000-7000-8000-00000000000a',
  name: 'Desk',
  state: 'planned',
  notes: '',
  rev: 3,
  origin: 'own',
  clonedFrom: null,
  slots: { host: null, socket: null, path: null, dock: null, card: null },
  createdAt: '2026-11-01T09:00:00Z',
  savedAt: '2026-11-01T09:00:00Z',
};
const url = `/api/setups/${stored.id}`;

describe('the editor of a setup', () => {
  let editor: SetupEditor;
  let http: HttpTestingController;

  beforeEach(() => {
    vi.useFakeTimers();
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting(), SetupEditor] });
    editor = TestBed.inject(SetupEditor);
    http = TestBed.inject(HttpTestingController);
    editor.open(stored.id);
    http.expectOne(url).flush(stored);
    http.match('/api/evaluate');
  });
  afterEach(() => vi.useRealTimers());

  it('saves once, 800 ms after the last change, under the revision it edited', () => {
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

  it('an edit that could not be sent waits and is sent at the next opening', () => {
    editor.change({ notes: 'by hand' });
    editor.flush();
    http.expectOne(url).error(new ProgressEvent('offline'), { status: 0 });
    expect(editor.save()).toEqual({ kind: 'failed', why: 'The server was not reached; nothing was stored' });
    expect(editor.fields()?.notes).toBe('by hand');
    const again = TestBed.runInInjectionContext(() => new SetupEditor());
    again.open(stored.id);
    http.expectOne((r) => r.url === url && r.method === 'GET').flush(stored);
    expect(http.expectOne((r) => r.url === url && r.method === 'PATCH').request.body).toMatchObject({ notes: 'by hand' });
  });

  it('a conflict shows both versions, and the pick is stored on top of theirs', () => {
    editor.change({ name: 'Mine' });
    editor.flush();
    const theirs = { ...stored, name: 'Theirs', notes: 'added', rev: 5 };
    http
      .expectOne(url)
      .flush({ title: 'Changed elsewhere', status: 412, current: theirs }, { status: 412, statusText: 'Precondition Failed' });
    expect(editor.save()).toMatchObject({ kind: 'conflict', fields: ['name'] });
    expect(editor.fields()?.name).toBe('Mine');
    editor.settle(() => 'mine');
    const req = http.expectOne(url);
    expect(req.request.headers.get('If-Match')).toBe('"5"');
    expect(req.request.body).toMatchObject({ name: 'Mine' });
    expect(editor.fields()).toMatchObject({ name: 'Mine', notes: 'added' });
  });

  it('changes that do not clash are merged without a question', () => {
    editor.change({ name: 'Mine' });
    editor.flush();
    http
      .expectOne(url)
      .flush({ title: 'x', status: 412, current: { ...stored, state: 'live', rev: 5 } }, { status: 412, statusText: 'x' });
    expect(http.expectOne(url).request.body).toMatchObject({ name: 'Mine' });
    expect(editor.fields()).toMatchObject({ name: 'Mine', state: 'live' });
  });
});
