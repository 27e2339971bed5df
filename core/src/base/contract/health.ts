import * as z from 'zod';
import { contracts } from './contracts';

const state = z.enum(['ok', 'down']);

export const healthContracts = contracts({
  'GET /api/live': {
    summary: 'Does the process answer',
    role: 'anyone',
    response: z.object({ status: state }),
  },
  'GET /api/ready': {
    summary: 'Can work be sent here: database, its schema, threads. 503 while it cannot',
    role: 'anyone',
    response: z.object({ status: state, database: state, schema: state, threads: state }),
  },
  'GET /api/metrics': {
    summary:
      'What the process does, in the text format of metrics collectors; for keepers, or with the bearer token of RUDDY_METRICS_TOKEN',
    role: 'anyone',
    sends: 'bytes',
    response: z.string(),
  },
});
