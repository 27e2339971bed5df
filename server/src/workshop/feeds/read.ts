import { Parser } from 'htmlparser2';
import * as z from 'zod';
import { parseJson } from '@ruddy/core/base';
import { softwareRole } from '@ruddy/core/parts';
import type { Published, Stated } from '@ruddy/core/workshop';
import { FeedProblem } from './address';
import { elementsOf, type XmlElement } from './xml';

const MAX_ITEMS = 500;
const MAX_TEXT = 4000;

const line = (most: number) => z.string().trim().min(1).max(most);
/** How a publisher states a release: the same words in both formats. */
const statedSchema = z.object({
  what: softwareRole,
  maker: line(80),
  model: line(80),
  version: z.coerce.string().trim().min(1).max(60),
  releasedOn: z.iso.date().or(z.literal('')).default(''),
  fixes: z.array(z.string().trim().max(200)).max(20).default([]),
});

const jsonItem = z.object({
  id: z.coerce.string().min(1).max(500),
  url: z.string().max(1000).optional(),
  title: z.string().max(500).optional(),
  content_text: z.string().optional(),
  content_html: z.string().optional(),
  summary: z.string().optional(),
  date_published: z.string().optional(),
  _release: z.unknown().optional(),
});
const jsonFeed = z.object({
  version: z.string().startsWith('https://jsonfeed.org/version/1', {
    error: 'version: not a JSON Feed of version 1',
  }),
  items: z.array(z.unknown()).max(MAX_ITEMS, { error: `items: more than ${MAX_ITEMS}` }),
});

/** Elements whose text is never for a reader. */
const UNREAD = ['script', 'style'];

/** Plain words out of marked-up text: news is shown as text, never as a page. */
function words(html: string): string {
  const found: string[] = [];
  let unread = 0;
  const mark = (name: string, step: number) => {
    if (UNREAD.includes(name)) unread += step;
    found.push(' ');
  };
  const parser = new Parser({
    onopentag: (name) => mark(name, 1),
    onclosetag: (name) => mark(name, -1),
    ontext: (text) => {
      if (unread === 0) found.push(text);
    },
  });
  parser.end(html);
  const text = found
    .join('')
    .split(/\s/)
    .filter((w) => w !== '')
    .join(' ');
  return text.slice(0, MAX_TEXT).trim();
}
const instant = (s: string | undefined) =>
  s && !Number.isNaN(Date.parse(s)) ? new Date(s).toISOString() : null;
const web = (s: string | undefined) => (s && /^https?:\/\//i.test(s) ? s.slice(0, 1000) : '');
const stated = (given: unknown): Stated | null => {
  const parsed = statedSchema.safeParse(given);
  return parsed.success ? parsed.data : null;
};

function place(error: z.ZodError, at: string): FeedProblem {
  const first = error.issues[0];
  return new FeedProblem(
    `Not read: ${at}${first?.path.length ? `, ${first.path.join('/')}` : ''}: ${first?.message ?? 'wrong'}`,
  );
}

/** Items of a JSON Feed (version 1 or 1.1, jsonfeed.org). A release may be stated in the member `_release` of an item. */
export function readJsonFeed(text: string): Published[] {
  let given: unknown;
  try {
    given = parseJson(text);
  } catch {
    throw new FeedProblem('Not read: the feed is not whole JSON');
  }
  const feed = jsonFeed.safeParse(given);
  if (!feed.success) throw place(feed.error, 'the feed');
  return feed.data.items.map((raw, i) => {
    const item = jsonItem.safeParse(raw);
    if (!item.success) throw place(item.error, `item ${i + 1}`);
    const { id, url, title, content_text, content_html, summary, date_published, _release } =
      item.data;
    const body = words(content_text ?? content_html ?? summary ?? '');
    return {
      key: id,
      title: words(title ?? '') || body.slice(0, 80) || id,
      url: web(url),
      text: body,
      publishedAt: instant(date_published),
      stated: stated(_release),
    };
  });
}

const childrenOf = (e: XmlElement, name: string) => e.children.filter((c) => c.name === name);
const childOf = (e: XmlElement, name: string) => childrenOf(e, name)[0];

/** The release an entry states in an element of its own. */
function statedIn(entry: XmlElement): Stated | null {
  const r = childOf(entry, 'release');
  if (!r) return null;
  return stated({ ...r.attributes, fixes: childrenOf(r, 'fixes').map((f) => f.text) });
}

function atomItem(entry: XmlElement, i: number): Published {
  const text = (name: string) => childOf(entry, name)?.text ?? '';
  const key = text('id').trim().slice(0, 500);
  if (key === '') throw new FeedProblem(`Not read: entry ${i + 1} has no id`);
  const links = childrenOf(entry, 'link').map((l) => l.attributes);
  const link = links.find((l) => (l['rel'] ?? 'alternate') === 'alternate') ?? links[0];
  return {
    key,
    title: words(text('title')) || key,
    url: web(link?.['href']),
    text: words(text('content') || text('summary')),
    publishedAt: instant(text('published') || text('updated')),
    stated: statedIn(entry),
  };
}

/**
 * Items of an Atom feed (RFC 4287). A document type is refused whole, so that no entity can expand. A release may be stated in an element
 * `release` of an entry, with attributes what, maker, model, version, releasedOn and elements `fixes`.
 */
export function readAtom(text: string): Published[] {
  const feed = elementsOf(text);
  const entries = childrenOf(feed, 'entry');
  if (feed.name !== 'feed' || (entries.length === 0 && !childOf(feed, 'id')))
    throw new FeedProblem('Not read: this is XML, but no Atom feed');
  if (entries.length > MAX_ITEMS) throw new FeedProblem(`Not read: more than ${MAX_ITEMS} entries`);
  return entries.map(atomItem);
}

/** Items of a feed in either format, told apart by how it begins. */
export function readFeed(text: string): Published[] {
  const begin = text.replace(/^\uFEFF/, '').trimStart();
  if (begin.startsWith('{')) return readJsonFeed(begin);
  if (begin.startsWith('<')) return readAtom(begin);
  throw new FeedProblem('Not read: neither JSON Feed nor Atom');
}

/** The same for the thread that reads: a refusal is an answer. */
export function feedAnswer(text: string): { items: Published[] } | { refused: string } {
  try {
    return { items: readFeed(text) };
  } catch (error) {
    if (error instanceof FeedProblem) return { refused: error.message };
    throw error;
  }
}
