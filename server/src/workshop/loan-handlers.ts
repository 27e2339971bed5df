import { loanContracts } from '@ruddy/core/workshop/contract';
import { implement } from '../platform/http/route';
import { checkLoan } from './loan-check';
import { piecesElsewhere } from './queries/pieces-elsewhere';
import { listLendable } from './queries/loan-rows';
import { createLoan, listLoans, patchLoan, takeBack } from './loans';

export const loanRoutes = implement(loanContracts, {
  'GET /api/setups/:id/pieces-elsewhere': async ({ params }) => ({
    body: { items: await piecesElsewhere(params.id) },
  }),
  'GET /api/loans': async ({ query }) => ({ body: { items: await listLoans(query) } }),
  'GET /api/loans/pieces': async () => ({ body: { items: await listLendable() } }),
  'POST /api/loans/check': async ({ body }, s) => ({
    body: await checkLoan(s, body.itemId, body.setupId),
  }),
  'POST /api/loans': async ({ body, actor }, s) => {
    const { loan, fresh } = await createLoan(s, body, actor);
    return { status: fresh ? 201 : 200, body: loan, etag: loan.rev };
  },
  'PATCH /api/loans/:id': async ({ params, body, revision }, s) => {
    const loan = await patchLoan(s, params.id, body, revision);
    return { body: loan, etag: loan.rev };
  },
  'POST /api/loans/:id/back': async ({ params, body, revision, actor }, s) => {
    const loan = await takeBack(s, params.id, body, revision, actor);
    return { body: loan, etag: loan.rev };
  },
});
