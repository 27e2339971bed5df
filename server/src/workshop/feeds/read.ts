import { XMLParser, XMLValidator } from 'fast-xml-parser';
import * as z from 'zod';
import { softwareRole } from '@ruddy/core/parts';
import type { Published, Stated } from '@ruddy/core/workshop';
import { FeedProblem } from './address';

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

/** Plain words out of marked-up text: news is shown as text, never as a page. */
const words = (s: string) =>
  s
    .replace(/<(script|style)[^>]*>[\s\S]*?<\/\1>/gi, ' ')
    .replace(/<[^>]*>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, MAX_TEXT);
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
    given = JSON.parse(text);
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

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  isArray: (name) => ['entry', 'link', 'fixes'].includes(name),
});
type Node = Readonly<Record<string, unknown>>;
const nodeOf = (v: unknown): Node =>
  typeof v === 'object' && v !== null && !Array.isArray(v) ? (v as Node) : {};
const textOf = (v: unknown): string =>
  typeof v === 'string' ? v : String(nodeOf(v)['#text'] ?? '');
const listOf = (v: unknown): readonly unknown[] =>
  Array.isArray(v) ? v : v === undefined ? [] : [v];

/** The reader refuses things the check before it lets pass, with an error of its own. */
function parsed(text: string): unknown {
  try {
    return parser.parse(text);
  } catch (error) {
    throw new FeedProblem(`Not read: ${error instanceof Error ? error.message : String(error)}`);
  }
}

/**
 * Items of an Atom feed (RFC 4287). A document type is refused whole, so that no entity can expand. A release may be stated in an element
 * `release` of an entry, with attributes what, maker, model, version, releasedOn and elements `fixes`.
 */
export function readAtom(text: string): Published[] {
  if (/<!DOCTYPE|<!ENTITY/i.test(text))
    throw new FeedProblem('Not read: the feed declares entities, which are not expanded');
  const whole = XMLValidator.validate(text);
  if (whole !== true) throw new FeedProblem(`Not read: line ${whole.err.line}: ${whole.err.msg}`);
  const feed = nodeOf(nodeOf(parsed(text))['feed']);
  if (!('id' in feed) && !('entry' in feed))
    throw new FeedProblem('Not read: this is XML, but no Atom feed');
  const entries = listOf(feed['entry']);
  if (entries.length > MAX_ITEMS) throw new FeedProblem(`Not read: more than ${MAX_ITEMS} entries`);
  return entries.map((raw, i) => {
    const e = nodeOf(raw);
    const key = textOf(e['id']).trim().slice(0, 500);
    if (key === '') throw new FeedProblem(`Not read: entry ${i + 1} has no id`);
    const links = listOf(e['link']).map(nodeOf);
    const link = links.find((l) => (l['@rel'] ?? 'alternate') === 'alternate') ?? links[0];
    const r = e['release'] === undefined ? null : nodeOf(e['release']);
    const body = words(textOf(e['content']) || textOf(e['summary']));
    const attr = (name: string) => textOf(r?.[`@${name}`]);
    const given = {
      what: attr('what'),
      maker: attr('maker'),
      model: attr('model'),
      version: attr('version'),
    };
    return {
      key,
      title: words(textOf(e['title'])) || key,
      url: web(textOf(link?.['@href'])),
      text: body,
      publishedAt: instant(textOf(e['published']) || textOf(e['updated'])),
      stated:
        r &&
        stated({ ...given, releasedOn: attr('releasedOn'), fixes: listOf(r['fixes']).map(textOf) }),
    };
  });
}

/** Items of a feed in either format, told apart by how it begins. */
export function readFeed(text: string): Published[] {
  const begin = text.replace(/^\uFEFF/, '').trimStart();
  if (begin.startsWith('{')) return readJsonFeed(begin);
  if (begin.startsWith('<')) return readAtom(begin);
  throw new FeedProblem('Not read: neither JSON Feed nor Atom');
}
