import * as z from 'zod';
import { byId, contracts, uuid } from '../../base/contract';
import {
  attemptBody,
  bringUpSchema,
  endBody,
  goodBody,
  stepBody,
  struckBody,
  tryBody,
  usedBody,
  usedRow,
} from './bring-up';
import { readingBody, readingEntry, reportBody, reportResponse } from './readings';

const ofAttempt = z.strictObject({ id: uuid, attempt: uuid });
const list = z.object({ items: z.array(readingEntry) });

export const bringUpContracts = contracts({
  'GET /api/setups/:id/bring-up': {
    summary: 'Attempts and steps of a setup, tries of its host, the last known good',
    role: 'reader',
    params: byId,
    response: bringUpSchema,
  },
  'POST /api/setups/:id/attempts': {
    summary: 'Begin an attempt; one that is still open ends with it',
    role: 'member',
    params: byId,
    body: attemptBody,
    response: bringUpSchema,
  },
  'POST /api/setups/:id/attempts/:attempt/end': {
    summary: 'End an attempt that did not pass',
    role: 'member',
    params: ofAttempt,
    body: endBody,
    response: bringUpSchema,
  },
  'POST /api/setups/:id/steps': {
    summary:
      'Note how a step went, with versions and settings met at it; the last one writes the entry',
    role: 'member',
    params: byId,
    body: stepBody,
    response: bringUpSchema,
  },
  'POST /api/setups/:id/tries': {
    summary: 'Write down a try from before: order, day, build, and whether the card came up',
    role: 'member',
    params: byId,
    body: tryBody,
    response: bringUpSchema,
  },
  'POST /api/setups/:id/used': {
    summary: 'Note hours in use, with drops and freezes',
    role: 'member',
    params: byId,
    body: usedBody,
    response: bringUpSchema,
  },
  'GET /api/used': {
    summary: 'Hours in use, drops and freezes of every setup',
    role: 'reader',
    response: z.object({ items: z.array(usedRow) }),
  },
  'POST /api/setups/:id/struck': {
    summary: 'Take a fact of the record back, with the reason; both stay',
    role: 'member',
    params: byId,
    body: struckBody,
    response: bringUpSchema,
  },
  'POST /api/setups/:id/good': {
    summary: 'Mark a setup as good as it stands now',
    role: 'member',
    params: byId,
    body: goodBody,
    response: bringUpSchema,
  },
});

export const readingContracts = contracts({
  'GET /api/setups/:id/readings': {
    summary: 'Readings of a setup, newest first, as they were graded',
    role: 'reader',
    params: byId,
    response: list,
  },
  'POST /api/setups/:id/readings': {
    summary: 'Store what was read of the link, held against the chain as it stands now',
    role: 'member',
    params: byId,
    body: readingBody,
    bodyLimit: '4mb',
    response: list,
  },
  'POST /api/reports': {
    summary:
      'Read a pasted bus listing or a JSON report; private fields are dropped and nothing is stored',
    role: 'reader',
    body: reportBody,
    bodyLimit: '8mb',
    response: reportResponse,
  },
});
