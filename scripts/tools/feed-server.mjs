import { createHash } from 'node:crypto';
import { createServer } from 'node:http';
import { gzipSync } from 'node:zlib';

/**
 * The stand-in for makers' release feeds: two invented ones, as JSON Feed and as Atom, with the answers a good server gives. It starts
 * with the demo data and can be run alone: `node scripts/tools/feed-server.mjs 4311`.
 */
export const FEED_PORT = 4311;

const item = (id, title, day, text, release) => ({
  id,
  title,
  content_text: text,
  date_published: `${day}T09:00:00Z`,
  ...(release && { _release: { ...release, releasedOn: day } }),
});

const DOCKS = {
  version: 'https://jsonfeed.org/version/1.1',
  title: 'Quillmere releases',
  items: [
    item(
      'quillmere-d4-19',
      'D-4 dock firmware 1.9',
      '2026-11-18',
      'For the D-4 enclosure. Keep the host on its charger and leave the cable alone until the update says it is done.',
      {
        what: 'dockFirmware',
        maker: 'Quillmere',
        model: 'D-4',
        version: '1.9',
        fixes: ['drops under load', 'card listed, then lost'],
      },
    ),
    item(
      'quillmere-d8-11',
      'D-8 dock firmware 1.1',
      '2026-11-10',
      'First update for the D-8. Charging no longer pauses when the lid is closed.',
      {
        what: 'dockFirmware',
        maker: 'Quillmere',
        model: 'D-8',
        version: '1.1',
        fixes: [],
      },
    ),
    item(
      'quillmere-hall',
      'Quillmere on the coast road fair',
      '2026-11-04',
      'Come and see the new enclosures in hall two.',
      null,
    ),
  ],
};

const CARDS = `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom" xmlns:r="urn:ruddy-bridge:release">
  <id>urn:carrhollow:drivers</id>
  <title>Carrhollow drivers</title>
  <updated>2026-11-16T08:00:00Z</updated>
  <entry>
    <id>urn:carrhollow:r23</id>
    <title>Carr IV driver r23</title>
    <updated>2026-11-16T08:00:00Z</updated>
    <summary>Mends a black screen after sleep with an outside card.</summary>
    <r:release what="driver" maker="Carrhollow" model="Carr IV" version="r23" releasedOn="2026-11-16">
      <r:fixes>black screen after sleep</r:fixes>
    </r:release>
  </entry>
  <entry>
    <id>urn:carrhollow:r70-note</id>
    <title>Note on the Carrhollow R-70: firmware 2.4 for its memory clock</title>
    <updated>2026-10-30T08:00:00Z</updated>
    <summary>Cards held at half their memory clock behind some docks come up to speed with card firmware 2.4.</summary>
  </entry>
</feed>
`;

const FEEDS = {
  '/quillmere.json': { type: 'application/feed+json', text: JSON.stringify(DOCKS) },
  '/carrhollow.atom': { type: 'application/atom+xml', text: CARDS },
};

/** Start it; resolves with the server, or null when the port is taken. */
export function startFeeds(port = FEED_PORT) {
  const server = createServer((req, res) => {
    const feed = FEEDS[new URL(req.url ?? '/', 'http://feeds').pathname];
    if (!feed) return res.writeHead(404).end();
    const etag = `"${createHash('sha256').update(feed.text).digest('hex').slice(0, 16)}"`;
    if (req.headers['if-none-match'] === etag) return res.writeHead(304, { etag }).end();
    const zip = /\bgzip\b/.test(req.headers['accept-encoding'] ?? '');
    const body = zip ? gzipSync(feed.text) : Buffer.from(feed.text);
    res
      .writeHead(200, {
        'content-type': feed.type,
        etag,
        ...(zip && { 'content-encoding': 'gzip' }),
      })
      .end(body);
  });
  return new Promise((resolve) => {
    server.once('error', () => resolve(null));
    server.listen(port, '127.0.0.1', () => resolve(server));
  });
}

if (process.argv[1]?.endsWith('feed-server.mjs')) {
  const port = Number(process.argv[2] ?? FEED_PORT);
  const server = await startFeeds(port);
  if (!server) {
    process.stderr.write(`port ${port} is taken\n`);
    process.exit(1);
  }
  process.stdout.write(
    `Stand-in feeds: ${Object.keys(FEEDS)
      .map((p) => `http://127.0.0.1:${server.address().port}${p}`)
      .join(' ')}\n`,
  );
}
