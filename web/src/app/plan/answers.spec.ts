import { TestBed } from '@angular/core/testing';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { NO_SETTINGS, NOTHING_INSTALLED } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { NO_SLOTS } from '@ruddy/core/setups';
import { Answers, placeOf, type Stored } from './answers';
import type { Fields } from '../setups/setup-patches';

const fields = {
  slots: {
    ...NO_SLOTS,
    host: 'h',
    socket: 'left',
    path: ['k1', 'k2'],
    dock: 'd',
    card: 'c',
    system: null,
    supplies: [{ part: 's', feeds: 'both' }],
    items: { 'path/0': 'i1' },
  },
  settings: NO_SETTINGS,
  installed: NOTHING_INSTALLED,
} as unknown as Fields;

describe('where an answer goes', () => {
  it.each([
    ['card/lengthMm', { of: 'part', id: 'c', attr: 'lengthMm', socket: null, item: null }],
    [
      'host/sockets/left/tunnelling',
      { of: 'part', id: 'h', attr: 'tunnelling', socket: 'left', item: null },
    ],
    ['path/b/markedGbps', { of: 'part', id: 'k2', attr: 'markedGbps', socket: null, item: null }],
    ['path/a/lengthMm', { of: 'part', id: 'k1', attr: 'lengthMm', socket: null, item: 'i1' }],
    ['supplies/a/supplyW', { of: 'part', id: 's', attr: 'supplyW', socket: null, item: null }],
  ])('%s goes to its part', (path, place) => {
    expect(placeOf(path, fields)).toEqual(place);
  });

  it('versions and settings go to the setup, unchosen nowhere', () => {
    const place = placeOf('installed/driver', fields);
    expect(place?.of === 'setup' && place.patch('41.2')).toEqual({
      installed: { ...NOTHING_INSTALLED, driver: '41.2' },
    });
    expect(placeOf('system/outsideCards', fields)).toBeNull();
    expect(placeOf('picture/a/hz', fields)).toBeNull();
    expect(placeOf('loads/0/downGbps', fields)).toBeNull();
  });
});

describe('an answer about a part', () => {
  const port = (key: string, tunnelling: string | null) => ({
    key,
    connector: 'usb-c',
    tunnelling,
  });
  const host = (rev: number, tunnelling: string | null) =>
    ({
      id: 'h',
      kind: 'host',
      rev,
      sources: { drawW: { from: 'label', on: '', note: '', kept: false } },
      spec: { sockets: [port('left', tunnelling), port('right', 'no')] },
    }) as unknown as Part;

  it('is written with its source and retracted whole', () => {
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting()],
    });
    const http = TestBed.inject(HttpTestingController);
    let stored: Stored | null = null;
    const source = { from: 'paper', on: '2026-11-20', note: '', kept: false } as const;
    TestBed.inject(Answers)
      .save({ of: 'part', id: 'h', attr: 'tunnelling', socket: 'left', item: null }, 'yes', source)
      .subscribe((s) => (stored = s));
    http.expectOne('/api/parts/h').flush(host(3, null));
    const patch = http.expectOne((r) => r.method === 'PATCH');
    expect(patch.request.headers.get('If-Match')).toBe('"3"');
    expect(patch.request.body).toEqual({
      spec: { sockets: [port('left', 'yes'), port('right', 'no')] },
      sources: { ...host(3, null).sources, 'sockets/left/tunnelling': source },
    });
    patch.flush(host(4, 'yes'));
    (stored as Stored | null)?.undo().subscribe();
    const back = http.expectOne((r) => r.method === 'PATCH');
    expect(back.request.headers.get('If-Match')).toBe('"4"');
    expect(back.request.body).toEqual({
      spec: { sockets: [port('left', null), port('right', 'no')] },
      sources: host(3, null).sources,
    });
    http.verify();
  });

  it("one item's answer stays there, its part unchanged", () => {
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting()],
    });
    const http = TestBed.inject(HttpTestingController);
    const source = { from: 'measured', on: '2026-11-20', note: '', kept: false } as const;
    const other = { markedW: { value: 60, source } };
    const piece = (rev: number, differs: object) => ({ items: [{ id: 'i1', rev, differs }] });
    let stored: Stored | null = null;
    TestBed.inject(Answers)
      .saveItem({ of: 'part', id: 'k1', attr: 'lengthMm', socket: null, item: 'i1' }, 650, source)
      .subscribe((x) => (stored = x));
    http.expectOne('/api/parts/k1/items').flush(piece(2, other));
    const patch = http.expectOne('/api/items/i1');
    expect(patch.request.body).toEqual({ differs: { ...other, lengthMm: { value: 650, source } } });
    patch.flush({});
    (stored as Stored | null)?.undo().subscribe();
    http
      .expectOne('/api/parts/k1/items')
      .flush(piece(3, { ...other, lengthMm: { value: 650, source } }));
    expect(http.expectOne('/api/items/i1').request.body).toEqual({ differs: other });
    http.verify();
  });
});
