import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  costBody,
  costGrounds,
  priceBody,
  priceEntry,
  rateBody,
  rateEntry,
} from '@ruddy/core/buy/contract';
import { factBody, itemBody, itemEntry, itemPatch, registerRow } from '@ruddy/core/parts/contract';
import { refuseFuture } from '../platform/http/problem';
import { route } from '../platform/http/route';
import { createItem, getItem, itemsOf, noteFact, patchItem, register } from '../parts/items';
import {
  addPrice,
  addRate,
  costGroundsFor,
  listRates,
  pricesOf,
  withdrawPrice,
  withdrawRate,
} from './prices';

const byId = z.strictObject({ id: uuid });
const items = z.object({ items: z.array(itemEntry) });
const prices = z.object({ items: z.array(priceEntry) });
const rates = z.object({ items: z.array(rateEntry) });
const done = z.object({ done: z.literal(true) });

/** Pieces, prices, rates, the cable register and what a plan costs. */
export const catalogueRoutes = [
  route({
    method: 'get',
    path: '/api/parts/:id/items',
    summary: 'The physical pieces of a part',
    role: 'reader',
    params: byId,
    response: items,
    handle: async ({ params }, { db }) => ({ body: { items: await itemsOf(db, params.id) } }),
  }),
  route({
    method: 'post',
    path: '/api/items',
    summary: 'Write a piece down',
    role: 'member',
    body: itemBody,
    response: itemEntry,
    handle: async ({ body, actor }, s) => {
      const fate = await s.db.transaction((t) =>
        createItem(s.db, body, { origin: 'own', at: s.now(), by: actor.id }, t),
      );
      const item = await getItem(s.db, body.id);
      return { status: fate === 'stored' ? 201 : 200, body: item, etag: item.rev };
    },
  }),
  route({
    method: 'patch',
    path: '/api/items/:id',
    summary: 'Change what is written of a piece',
    role: 'member',
    params: byId,
    body: itemPatch,
    response: itemEntry,
    handle: async ({ params, body, ifMatch }, s) => {
      const item = await patchItem(s, params.id, body, ifMatch);
      return { body: item, etag: item.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/item-facts',
    summary: 'Note something seen on a piece: a rate, a version, a fault',
    role: 'member',
    body: factBody,
    response: itemEntry,
    handle: async ({ body, actor }, s) => ({ status: 201, body: await noteFact(s, body, actor) }),
  }),
  route({
    method: 'get',
    path: '/api/cables',
    summary: 'The cable register: claim, marks, length, where bought, best rate read',
    role: 'reader',
    response: z.object({ items: z.array(registerRow) }),
    handle: async (_call, { db }) => ({ body: { items: await register(db) } }),
  }),
  route({
    method: 'get',
    path: '/api/parts/:id/prices',
    summary: 'Prices of a part and of boxes it is in, newest first',
    role: 'reader',
    params: byId,
    response: prices,
    handle: async ({ params }, { db }) => ({ body: { items: await pricesOf(db, params.id) } }),
  }),
  route({
    method: 'post',
    path: '/api/prices',
    summary: 'Write a price down',
    role: 'member',
    body: priceBody,
    response: prices,
    handle: async ({ body, actor }, s) => {
      refuseFuture('onDate', body.onDate, s.now());
      await s.db.transaction((t) =>
        addPrice(s.db, body, { origin: 'own', at: s.now(), by: actor.id }, t),
      );
      return { status: 201, body: { items: await pricesOf(s.db, body.partId) } };
    },
  }),
  route({
    method: 'delete',
    path: '/api/prices/:id',
    summary: 'Strike a price that was written down wrongly',
    role: 'member',
    params: byId,
    response: done,
    handle: async ({ params }, s) => {
      await withdrawPrice(s, params.id);
      return { body: { done: true as const } };
    },
  }),
  route({
    method: 'get',
    path: '/api/rates',
    summary: 'Dated rates of exchange',
    role: 'reader',
    response: rates,
    handle: async (_call, { db }) => ({ body: { items: await listRates(db) } }),
  }),
  route({
    method: 'post',
    path: '/api/rates',
    summary: 'Write a dated rate of exchange down',
    role: 'member',
    body: rateBody,
    response: rates,
    handle: async ({ body, actor }, s) => {
      refuseFuture('onDate', body.onDate, s.now());
      await addRate(body, { origin: 'own', at: s.now(), by: actor.id });
      return { status: 201, body: { items: await listRates(s.db) } };
    },
  }),
  route({
    method: 'delete',
    path: '/api/rates/:id',
    summary: 'Strike a rate that was written down wrongly',
    role: 'member',
    params: byId,
    response: done,
    handle: async ({ params }, s) => {
      await withdrawRate(s, params.id);
      return { body: { done: true as const } };
    },
  }),
  route({
    method: 'post',
    path: '/api/cost',
    summary:
      'What is known of the money of some parts: prices, pieces, rates, all-in-ones to compare with',
    role: 'reader',
    body: costBody,
    response: costGrounds,
    handle: async ({ body }, s) => ({ body: await costGroundsFor(s, body) }),
  }),
];
