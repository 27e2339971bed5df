import { newsContracts } from '@ruddy/core/workshop/contract';
import { concernsHere } from '@ruddy/core/workshop';
import { implement } from '../platform/http/route';
import { createFeed, listFeeds, patchFeed, readNow, removeFeed } from './feeds';
import { keepRelease, listNews, markNews } from './news';

export const newsRoutes = implement(newsContracts, {
  'GET /api/feeds': async () => ({ body: { items: await listFeeds() } }),
  'POST /api/feeds': async ({ body, actor }, s) => {
    const { feed, fresh } = await createFeed(s, body, actor);
    return { status: fresh ? 201 : 200, body: feed, etag: feed.rev };
  },
  'PATCH /api/feeds/:id': async ({ params, body, revision }, s) => {
    const feed = await patchFeed(s, params.id, body, revision);
    return { body: feed, etag: feed.rev };
  },
  'DELETE /api/feeds/:id': async ({ params }) => {
    await removeFeed(params.id);
    return { body: { removed: true } };
  },
  'POST /api/feeds/:id/read': async ({ params }, s) => ({ body: await readNow(s, params.id) }),
  'GET /api/news': async () => {
    const items = await listNews();
    return {
      body: { items, concerns: items.filter((n) => n.state === 'new' && concernsHere(n)).length },
    };
  },
  'PATCH /api/news/:id': async ({ params, body }) => ({
    body: await markNews(params.id, body.state),
  }),
  'POST /api/news/:id/release': async ({ params, body, actor }, s) => ({
    status: 201,
    body: await keepRelease(s, params.id, body, actor),
  }),
});
