import * as z from 'zod';
import { byId, contracts } from '../../base/contract';
import { factBody, itemBody, itemEntry, itemPatch, registerRow } from '../../parts/contract';
import { costBody, costGrounds } from './cost';
import { priceBody, priceEntry, rateBody, rateEntry } from './money';
import {
  machinesAnswer,
  machinesBody,
  scoutAnswer,
  scoutAsk,
  scoutGrounds,
  searchBody,
  searchEntry,
  searchPatch,
} from './scout';

const items = z.object({ items: z.array(itemEntry) });
const prices = z.object({ items: z.array(priceEntry) });
const done = z.object({ done: z.literal(true) });
const rates = z.object({ items: z.array(rateEntry) });

export const catalogueContracts = contracts({
  'GET /api/parts/:id/items': {
    summary: 'The items of a part',
    role: 'reader',
    params: byId,
    response: items,
  },
  'POST /api/items': {
    summary: 'Add an item',
    role: 'member',
    body: itemBody,
    response: itemEntry,
  },
  'PATCH /api/items/:id': {
    summary: 'Change an item',
    role: 'member',
    params: byId,
    body: itemPatch,
    response: itemEntry,
    revision: 'required',
  },
  'POST /api/item-facts': {
    summary: 'Add a finding on an item: a rate, a version, a fault',
    role: 'member',
    body: factBody,
    response: itemEntry,
  },
  'GET /api/cables': {
    summary: 'The cable register: claim, marks, length, where bought, best rate read',
    role: 'reader',
    response: z.object({ items: z.array(registerRow) }),
  },
  'GET /api/parts/:id/prices': {
    summary: 'Prices of a part and of boxes it is in, newest first',
    role: 'reader',
    params: byId,
    response: prices,
  },
  'POST /api/prices': {
    summary: 'Write a price down',
    role: 'member',
    body: priceBody,
    response: prices,
  },
  'DELETE /api/prices/:id': {
    summary: 'Strike a price that was written down wrongly',
    role: 'member',
    audit: 'removal',
    params: byId,
    response: done,
  },
  'GET /api/rates': {
    summary: 'Dated rates of exchange',
    role: 'reader',
    response: rates,
  },
  'POST /api/rates': {
    summary: 'Write a dated rate of exchange down',
    role: 'member',
    body: rateBody,
    response: rates,
  },
  'DELETE /api/rates/:id': {
    summary: 'Strike a rate that was written down wrongly',
    role: 'member',
    audit: 'removal',
    params: byId,
    response: done,
  },
  'POST /api/cost': {
    summary:
      'What is known of the money of some parts: prices, items, rates, all-in-ones to compare with',
    role: 'reader',
    body: costBody,
    response: costGrounds,
  },
});

export const searchContracts = contracts({
  'POST /api/scout/grounds': {
    summary:
      'All that a search for what to buy needs: parts with prices, what is at hand, rules, the log. Nothing is stored',
    role: 'reader',
    body: scoutAsk,
    response: scoutGrounds,
  },
  'POST /api/scout': {
    summary:
      'Search what to buy for a host, a use and money, in a thread of its own. Nothing is stored',
    role: 'reader',
    body: scoutAsk,
    response: scoutAnswer,
  },
  'POST /api/scout/machines': {
    summary:
      'Laptops and desktops of the catalogue with net price and frames to expect. Nothing is stored',
    role: 'reader',
    body: machinesBody,
    response: machinesAnswer,
  },
  'GET /api/searches': {
    summary: 'Searches that were kept under a name',
    role: 'reader',
    response: z.object({ items: z.array(searchEntry) }),
  },
  'POST /api/searches': {
    summary: 'Keep a search under a name',
    role: 'member',
    body: searchBody,
    response: searchEntry,
  },
  'PATCH /api/searches/:id': {
    summary: 'Rename a kept search or keep it as it is now',
    role: 'member',
    params: byId,
    body: searchPatch,
    response: searchEntry,
    revision: 'required',
  },
  'DELETE /api/searches/:id': {
    summary: 'Delete a saved search',
    role: 'member',
    audit: 'removal',
    params: byId,
    response: z.object({ removed: z.boolean() }),
  },
});
