import { byId, contracts } from '../../base/contract';
import { cloneBody, setupBody, setupPatch, setupSchema } from './setups';

export const setupContracts = contracts({
  'POST /api/setups': {
    summary: 'Start a setup',
    role: 'member',
    body: setupBody,
    response: setupSchema,
  },
  'GET /api/setups/:id': {
    summary: 'One setup',
    role: 'reader',
    params: byId,
    response: setupSchema,
  },
  'PATCH /api/setups/:id': {
    summary: 'Change a setup by a merge patch',
    role: 'member',
    params: byId,
    body: setupPatch,
    response: setupSchema,
    revision: 'required',
  },
  'POST /api/setups/:id/clone': {
    summary: 'Copy a setup under another name',
    role: 'member',
    params: byId,
    body: cloneBody,
    response: setupSchema,
  },
});
