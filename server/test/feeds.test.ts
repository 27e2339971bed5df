import { randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { afterAll, afterEach, beforeAll, describe, expect, inject, it } from 'vitest';
import type { FeedEntry, NewsEntry } from '@ruddy/core/workshop/contract';
import { allowed, checkedAddress } from '../src/workshop/feeds/address';
import { fetchFeed, LIMITS } from '../src/workshop/feeds/fetch';
import { readAtom, readFeed, readJsonFeed } from '../src/workshop/feeds/read';
import { readDue } from '../src/workshop/feeds';
import { start, type Harness } from './harness';

let server: Server | null = null;
/** A server that answers as a test wants; the address of its feed. */
async function serve(answer: (req: IncomingMessage, res: ServerResponse) => void): Promise<string> {
  server = createServer(answer);
  await new Promise<void>((go) => server?.listen(0, '127.0.0.1', go));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}/feed`;
}
afterEach(() => {
  server?.closeAllConnections();
  server?.close();
  server = null;
});

const ask = (url: string, over = {}) => ({ url, near: true, etag: '', modified: '', ...over });
const FEED = {
  version: 'https://jsonfeed.org/version/1.1',
  title: 'T',
  items: [{ id: '1', title: 'One', content_text: 'Text' }],
};

describe('marked-up text of others', () => {
  const entry = (content: string) =>
    `<feed xmlns="http://www.w3.org/2005/Atom"><id>f</id><entry><id>e</id><title>T</title>${content}</entry></feed>`;

  it('becomes plain words, however it is broken', () => {
    const said = (html: string) =>
      readAtom(entry(`<content type="html"><![CDATA[${html}]]></content>`))[0]?.text;
    expect(said('<p>One</p><p>two &amp; three</p>')).toBe('One two & three');
    expect(said('<script>alert(1)</script>a<style>p{}</style>b')).toBe('a b');
    expect(said('a < b and <b')).toBe('a < b and');
    expect(said('<<<<p>x')).toContain('x');
    expect(said('<scr<script>ipt>alert(1)</script>')).not.toContain('<script');
  });

  it('is cut to a length, and too much of anything is refused', () => {
    expect(readAtom(entry(`<content>${'&lt;'.repeat(400_000)}</content>`))[0]?.text).toHaveLength(
      4000,
    );
    const attributes = Array.from({ length: 150 }, (_, i) => `a${i}="1"`).join(' ');
    expect(() => readAtom(entry(`<link ${attributes}/>`))).toThrow(/more than 100 attributes/);
    expect(() => readAtom(entry('<a>'.repeat(60)))).toThrow(/nest deeper than 50 levels/);
    expect(() => readAtom(entry('<a/>'.repeat(100_001)))).toThrow(/more than 100000 elements/);
  });
});

describe('addresses', () => {
  it.each([
    ['127.0.0.1', false, false],
    ['127.0.0.1', true, true],
    ['10.1.2.3', false, false],
    ['192.168.1.4', true, true],
    ['::1', false, false],
    ['::ffff:127.0.0.1', false, false],
    ['fd00::1', true, true],
    ['169.254.169.254', true, false],
    ['0.0.0.0', true, false],
    ['224.0.0.1', true, false],
    ['100.64.0.1', true, false],
    ['fe80::1', true, false],
    ['93.184.216.34', false, true],
  ])('%s, near allowed %s: %s', (address, near, may) => {
    expect(allowed(address, near)).toBe(may);
  });

  it('refuses names resolving to inside addresses, and says the remedy', async () => {
    const both = () =>
      Promise.resolve([
        { address: '93.184.216.34', family: 4 as const },
        { address: '10.0.0.7', family: 4 as const },
      ]);
    await expect(checkedAddress('maker.example', false, both)).rejects.toThrow(
      /10\.0\.0\.7.*local network.*keeper may allow/,
    );
    await expect(
      checkedAddress('maker.example', false, () => Promise.reject(new Error())),
    ).rejects.toThrow('cannot be found');
  });

  it('connects to the address that was checked, whatever the name says later', async () => {
    let host = '';
    const url = await serve((req, res) => {
      host = req.headers.host ?? '';
      res.end(JSON.stringify(FEED));
    });
    const named = url.replace('127.0.0.1', 'maker.example');
    let asked = 0;
    const got = await fetchFeed(ask(named), () => {
      asked += 1;
      return Promise.resolve([{ address: '127.0.0.1', family: 4 }]);
    });
    expect([got.state, asked]).toEqual(['new', 1]);
    expect(host).toContain('maker.example');
  });
});

describe('fetching', () => {
  it('asks only for what changed, and reads packed answers', async () => {
    const url = await serve((req, res) => {
      if (req.headers['if-none-match'] === '"a"') res.writeHead(304).end();
      else
        res
          .writeHead(200, { etag: '"a"', 'content-encoding': 'gzip' })
          .end(gzipSync(JSON.stringify(FEED)));
    });
    const first = await fetchFeed(ask(url));
    expect(first).toMatchObject({ state: 'new', etag: '"a"', text: JSON.stringify(FEED) });
    expect(await fetchFeed(ask(url, { etag: '"a"' }))).toEqual({ state: 'same' });
  });

  it('refuses what is huge after inflating, without holding it', async () => {
    const url = await serve((_req, res) =>
      res
        .writeHead(200, { 'content-encoding': 'gzip' })
        .end(gzipSync(Buffer.alloc(LIMITS.bytes + 1))),
    );
    await expect(fetchFeed(ask(url))).rejects.toThrow('larger than 2 MB');
  });

  it('refuses what is slow, from the first byte or in between', async () => {
    const url = await serve((req, res) => {
      if (req.url === '/drip') res.writeHead(200).write('{');
    });
    const quick = { ...LIMITS, ms: 150 };
    await expect(fetchFeed(ask(url), undefined, quick)).rejects.toThrow(
      'No whole answer within 0.15 s',
    );
    await expect(fetchFeed(ask(url.replace('/feed', '/drip')), undefined, quick)).rejects.toThrow(
      'No whole answer',
    );
  });

  it('follows at most three redirects on the same host, and none elsewhere', async () => {
    const url = await serve((req, res) => {
      const n = Number(/\d+$/.exec(req.url ?? '')?.[0] ?? 0);
      if (req.url === '/away')
        res.writeHead(302, { location: 'http://elsewhere.example/feed' }).end();
      else if (req.url === '/inside') res.writeHead(302, { location: 'file:///etc/passwd' }).end();
      else if (n > 0) res.writeHead(301, { location: `/hop${n - 1}` }).end();
      else res.end(JSON.stringify(FEED));
    });
    const at = (path: string) => ask(url.replace('/feed', path));
    expect((await fetchFeed(at('/hop3'))).state).toBe('new');
    await expect(fetchFeed(at('/hop4'))).rejects.toThrow('more than 3 times');
    await expect(fetchFeed(at('/away'))).rejects.toThrow(
      /sends on to elsewhere\.example.*set its address/,
    );
    await expect(fetchFeed(at('/inside'))).rejects.toThrow('sends on to file:');
  });

  it('says what else went wrong in words', async () => {
    const url = await serve((req, res) => {
      if (req.url === '/zip') res.writeHead(200, { 'content-encoding': 'gzip' }).end('no zip');
      else res.writeHead(500).end();
    });
    await expect(fetchFeed(ask(url))).rejects.toThrow('answers 500');
    await expect(fetchFeed(ask(url.replace('/feed', '/zip')))).rejects.toThrow('packed wrongly');
    await expect(fetchFeed(ask(url, { near: false }))).rejects.toThrow(
      'on this machine or in the local network',
    );
    server?.close();
    await expect(fetchFeed(ask('http://127.0.0.1:1/x'))).rejects.toThrow('Nobody answers');
  });
});

describe('reading', () => {
  const atom = (inner: string) =>
    `<feed xmlns="http://www.w3.org/2005/Atom"><id>f</id>${inner}</feed>`;

  it('reads both formats alike, marked-up text as plain words', () => {
    const release = {
      what: 'driver',
      maker: 'Birch',
      model: 'R',
      version: '2.0',
      fixes: ['a', 'b'],
    };
    const json = {
      ...FEED,
      items: [
        {
          id: '1',
          title: 'One',
          content_html: '<p>A <b>b</b><script>x()</script></p>',
          url: 'javascript:x',
          _release: release,
        },
      ],
    };
    const [a] = readJsonFeed(JSON.stringify(json));
    const [b] = readAtom(
      atom(`<entry xmlns:r="urn:ruddy-bridge:release"><id>1</id><title>One &amp; only</title><content type="html">&lt;p&gt;A b&lt;/p&gt;</content>
        <link href="https://maker.example/1"/><updated>2026-11-01T00:00:00Z</updated>
        <r:release what="driver" maker="Birch" model="R" version="2.0"><r:fixes>a</r:fixes><r:fixes>b</r:fixes></r:release></entry>`),
    );
    expect(a).toMatchObject({
      key: '1',
      title: 'One',
      text: 'A b',
      url: '',
      stated: { ...release, releasedOn: '' },
    });
    expect(b).toMatchObject({
      title: 'One & only',
      text: 'A b',
      url: 'https://maker.example/1',
      publishedAt: '2026-11-01T00:00:00.000Z',
    });
    expect(b?.stated).toEqual({ ...release, releasedOn: '' });
  });

  it.each([
    ['{"version": "https://jsonfeed.org/version/1.1"', 'not whole JSON'],
    ['{"version": "2", "items": []}', 'version: not a JSON Feed'],
    ['{"version": "https://jsonfeed.org/version/1", "items": [{"title": "x"}]}', 'item 1, id'],
    ['<feed><id>1</id><entry></feed>', 'line 1'],
    ['<rss><channel/></rss>', 'no Atom feed'],
    [atom('<entry><title>x</title></entry>'), 'entry 1 has no id'],
    [
      '<!DOCTYPE x [<!ENTITY a "aaaa">]><feed><id>&a;</id></feed>',
      'entities, which are not expanded',
    ],
    ['hello', 'neither JSON Feed nor Atom'],
  ])('refuses %s', (text, why) => {
    expect(() => readFeed(text)).toThrow(why);
  });
});

describe('feeds and news', () => {
  let h: Harness;
  beforeAll(async () => {
    h = await start({ demo: true });
  });
  afterAll(() => h.close());

  it('keeps the failure in words and the items read before', async () => {
    let broken = false;
    const url = await serve((_req, res) => res.end(broken ? 'oops' : JSON.stringify(FEED)));
    const id = randomUUID();
    await h.api.post('/api/feeds').send({ id, name: 'Own', url, near: true }).expect(201);
    const first = (await h.api.post(`/api/feeds/${id}/read`).send({}).expect(200))
      .body as FeedEntry;
    expect(first).toMatchObject({ problem: '', items: 1 });
    broken = true;
    const second = (await h.api.post(`/api/feeds/${id}/read`).send({}).expect(200))
      .body as FeedEntry;
    expect(second).toMatchObject({ problem: 'Not read: neither JSON Feed nor Atom', items: 1 });
    const twice = await h.api.post('/api/feeds').send({ id: randomUUID(), name: 'Twin', url });
    expect([twice.status, JSON.stringify(twice.body)]).toEqual([
      422,
      expect.stringContaining('there already'),
    ]);
    await h.api
      .post('/api/feeds')
      .send({ id: randomUUID(), name: 'X', url: 'ftp://maker.example' })
      .expect(422);
    // A local address is refused until the keeper allows it.
    await h.api
      .patch(`/api/feeds/${id}`)
      .set('If-Match', `"${second.rev}"`)
      .send({ near: false })
      .expect(200);
    const far = (await h.api.post(`/api/feeds/${id}/read`).send({}).expect(200)).body as FeedEntry;
    expect(far.problem).toContain('A keeper may allow that');
    await h.api.delete(`/api/feeds/${id}`).expect(200);
  });

  it('reads feeds that are due, each once', async () => {
    let read = 0;
    const url = await serve((_req, res) => {
      read += 1;
      res.end(JSON.stringify(FEED));
    });
    await h.db.query('UPDATE feeds SET next_at = NULL, every_hours = NULL');
    const id = randomUUID();
    await h.api
      .post('/api/feeds')
      .send({ id, name: 'Daily', url, near: true, everyHours: 24 })
      .expect(201);
    const services = { now: () => h.clock.now, threads: inject('threads') };
    expect(await Promise.all([readDue(services), readDue(services)]).then((n) => n[0] + n[1])).toBe(
      1,
    );
    expect([read, await readDue(services)]).toEqual([1, 0]);
    const [row] = await h.rows<{ next_at: Date }>('SELECT next_at FROM feeds WHERE id = $1', [id]);
    expect(row?.next_at.getTime()).toBe(h.clock.now.getTime() + 24 * 3_600_000);
    await h.api.delete(`/api/feeds/${id}`).expect(200);
  });

  it('flags items about own parts or symptoms, and makes releases', async () => {
    const release = {
      what: 'dockFirmware',
      maker: 'Quillmere',
      model: 'D-4',
      version: '1.9',
      fixes: ['drops under load'],
    };
    const items = [
      { id: 'a', title: 'D-4 dock firmware 1.9', content_text: 'x', _release: release },
      { id: 'b', title: 'At the fair', content_text: 'Hall 2' },
    ];
    const url = await serve((_req, res) => res.end(JSON.stringify({ ...FEED, items })));
    const id = randomUUID();
    await h.api.post('/api/feeds').send({ id, name: 'Maker', url, near: true }).expect(201);
    await h.api.post(`/api/feeds/${id}/read`).send({}).expect(200);
    const { body } = await h.api.get('/api/news').expect(200);
    const list = (body as { items: NewsEntry[]; concerns: number }).items;
    const hit = list.find((n) => n.title.startsWith('D-4'));
    expect(hit?.touches.map((t) => [t.name, t.here, t.by])).toEqual([
      ['Quillmere D-4', true, 'stated'],
    ]);
    expect(hit?.symptoms).toContain('drops under load');
    expect(list.find((n) => n.title === 'At the fair')).toMatchObject({
      touches: [],
      symptoms: [],
      draft: null,
    });
    expect((body as { concerns: number }).concerns).toBe(1);
    const part = randomUUID();
    const kept = await h.api
      .post(`/api/news/${hit?.id}/release`)
      .send({ id: part, spec: hit?.draft })
      .expect(201);
    expect(kept.body).toMatchObject({ state: 'kept', releaseId: part });
    const again = await h.api
      .post(`/api/news/${hit?.id}/release`)
      .send({ id: randomUUID(), spec: hit?.draft });
    expect((again.body as NewsEntry).releaseId).toBe(part);
    const touched = await h.api.get(`/api/releases/${part}/setups`);
    expect(JSON.stringify(touched.body)).toContain('Dome desk');
    // Reading it again neither doubles nor loses what was done about it.
    await h.api.post(`/api/feeds/${id}/read`).send({}).expect(200);
    const after = ((await h.api.get('/api/news')).body as { items: NewsEntry[] }).items.filter(
      (n) => n.feedId === id,
    );
    expect(after.map((n) => n.state).sort()).toEqual(['kept', 'new']);
  });
});
