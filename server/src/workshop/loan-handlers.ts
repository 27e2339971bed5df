import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  backBody,
  chainCheck,
  chainCheckBody,
  lendableList,
  loanBody,
  loanList,
  loanPatch,
  loanQuery,
  loanRow,
  pieceElsewhere,
} from '@ruddy/core/workshop/contract';
import { route } from '../platform/http/route';
import { checkLoan } from './loan-check';
import { piecesElsewhere } from './pieces-elsewhere';
import { createLoan, listLendable, listLoans, patchLoan, takeBack } from './loans';

const byId = z.strictObject({ id: uuid });

export const loanRoutes = [
  route({
    method: 'get',
    path: '/api/setups/:id/pieces-elsewhere',
    summary:
      'Pieces this setup names that are in another live setup too, or lent for something else',
    role: 'reader',
    params: byId,
    response: z.object({ items: z.array(pieceElsewhere) }),
    handle: async ({ params }, { db }) => ({
      body: { items: await piecesElsewhere(db, params.id) },
    }),
  }),
  route({
    method: 'get',
    path: '/api/loans',
    summary: 'Loans: what is out or waited for, or what came back',
    role: 'reader',
    query: loanQuery,
    response: loanList,
    handle: async ({ query }, { db }) => ({ body: { items: await listLoans(db, query) } }),
  }),
  route({
    method: 'get',
    path: '/api/loans/pieces',
    summary: 'Pieces that can be lent, with where they are and the live setups that name them',
    role: 'reader',
    response: lendableList,
    handle: async (_call, { db }) => ({ body: { items: await listLendable(db) } }),
  }),
  route({
    method: 'post',
    path: '/api/loans/check',
    summary: "The borrower's chain as it stands and with the piece in its place; nothing is stored",
    role: 'reader',
    body: chainCheckBody,
    response: chainCheck,
    handle: async ({ body }, s) => ({ body: await checkLoan(s, body.itemId, body.setupId) }),
  }),
  route({
    method: 'post',
    path: '/api/loans',
    summary: 'Lend a piece now, or wait for it',
    role: 'member',
    body: loanBody,
    response: loanRow,
    handle: async ({ body, actor }, s) => {
      const { loan, fresh } = await createLoan(s, body, actor);
      return { status: fresh ? 201 : 200, body: loan, etag: loan.rev };
    },
  }),
  route({
    method: 'patch',
    path: '/api/loans/:id',
    summary: 'Hand over what was waited for, move the day it is due, or let the wish go',
    role: 'member',
    params: byId,
    body: loanPatch,
    response: loanRow,
    handle: async ({ params, body, ifMatch }, s) => {
      const loan = await patchLoan(s, params.id, body, ifMatch);
      return { body: loan, etag: loan.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/loans/:id/back',
    summary: 'Take a piece back: what is missing, how it looks, whether it works',
    role: 'member',
    params: byId,
    body: backBody,
    response: loanRow,
    handle: async ({ params, body, ifMatch, actor }, s) => {
      const loan = await takeBack(s, params.id, body, ifMatch, actor);
      return { body: loan, etag: loan.rev };
    },
  }),
];
