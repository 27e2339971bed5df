import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import { concernsHere } from '@ruddy/core/workshop';
import {
  feedBody,
  feedEntry,
  feedPatch,
  newsEntry,
  newsList,
  newsRelease,
  newsState,
} from '@ruddy/core/workshop/contract';
import { route } from '../platform/http/route';
import { createFeed, listFeeds, patchFeed, readNow, removeFeed } from './feeds';
import { keepRelease, listNews, markNews } from './news';

const byId = z.strictObject({ id: uuid });

export const newsRoutes = [
  route({
    method: 'get',
    path: '/api/feeds',
    summary: 'Release feeds, with how their last reading went',
    role: 'reader',
    response: z.object({ items: z.array(feedEntry) }),
    handle: async (_call, s) => ({ body: { items: await listFeeds(s.db) } }),
  }),
  route({
    method: 'post',
    path: '/api/feeds',
    summary: 'Remember a feed (JSON Feed or Atom) to be read by hand or every so many hours',
    role: 'keeper',
    body: feedBody,
    response: feedEntry,
    handle: async ({ body, actor }, s) => {
      const { feed, fresh } = await createFeed(s, body, actor);
      return { status: fresh ? 201 : 200, body: feed, etag: feed.rev };
    },
  }),
  route({
    method: 'patch',
    path: '/api/feeds/:id',
    summary:
      'Change a feed: name, address, how often, whether it may lie on this machine or in the local network',
    role: 'keeper',
    params: byId,
    body: feedPatch,
    response: feedEntry,
    handle: async ({ params, body, ifMatch }, s) => {
      const feed = await patchFeed(s, params.id, body, ifMatch);
      return { body: feed, etag: feed.rev };
    },
  }),
  route({
    method: 'delete',
    path: '/api/feeds/:id',
    summary: 'Let go of a feed and its news; releases made from it stay',
    role: 'keeper',
    params: byId,
    response: z.object({ removed: z.boolean() }),
    handle: async ({ params }, s) => {
      await removeFeed(s, params.id);
      return { body: { removed: true } };
    },
  }),
  route({
    method: 'post',
    path: '/api/feeds/:id/read',
    summary: 'Read a feed now; what went wrong stands in the answer',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: feedEntry,
    handle: async ({ params }, s) => ({ body: await readNow(s, params.id) }),
  }),
  route({
    method: 'get',
    path: '/api/news',
    summary: 'News of all feeds with the parts and logged symptoms it concerns, newest first',
    role: 'reader',
    response: newsList,
    handle: async (_call, s) => {
      const items = await listNews(s);
      return {
        body: { items, concerns: items.filter((n) => n.state === 'new' && concernsHere(n)).length },
      };
    },
  }),
  route({
    method: 'patch',
    path: '/api/news/:id',
    summary: 'Mark news as read or as new again',
    role: 'member',
    params: byId,
    body: newsState,
    response: newsEntry,
    handle: async ({ params, body }, s) => ({ body: await markNews(s, params.id, body.state) }),
  }),
  route({
    method: 'post',
    path: '/api/news/:id/release',
    summary: 'Make a release of the catalogue out of news',
    role: 'member',
    params: byId,
    body: newsRelease,
    response: newsEntry,
    handle: async ({ params, body, actor }, s) => ({
      status: 201,
      body: await keepRelease(s, params.id, body, actor),
    }),
  }),
];
