import * as z from 'zod';
import { byId, contracts, uuid } from '../../base/contract';
import {
  linkOverheadRow,
  profileBody,
  profileEntry,
  profilePatch,
  settledForecasts,
} from './profiles';
import {
  CHANNELS,
  MAX_PACKED,
  MAX_VALUES,
  csvMapping,
  idList,
  runBody,
  runEntry,
  runPage,
  runQuery,
  saidBody,
  sessionBody,
  sessionEntry,
  sha256,
} from './runs';
import { statedFigureBody, statedFigureList } from './stated-figures';

const profiles = z.object({ items: z.array(profileEntry) });
const impossibleRuns = z.object({ items: z.array(z.string()) });
const bytes = z.instanceof(Uint8Array, { error: 'bytes are missing' });
const mappings = z.object({ items: z.array(csvMapping) });
const sessions = z.object({ items: z.array(sessionEntry) });

export const profileContracts = contracts({
  'GET /api/profiles': {
    summary: 'Titles, work and synthetic tests that runs are made of',
    role: 'reader',
    response: profiles,
  },
  'POST /api/profiles': {
    summary: 'Add a title, a kind of work or a test; one of the same name is met, not doubled',
    role: 'member',
    body: profileBody,
    response: z.object({ id: uuid }),
  },
  'PATCH /api/profiles/:id': {
    summary: 'Change what is said of a title: its scene, its year, the start values of its frame',
    role: 'member',
    params: byId,
    body: profilePatch,
    response: profileEntry,
    revision: 'required',
  },
  'GET /api/link-overheads': {
    summary:
      'What the link of each setup costs a frame of the title that tells most of it; setups without runs are left out',
    role: 'reader',
    query: z.strictObject({ setupIds: idList('setupIds') }),
    response: z.object({ items: z.array(linkOverheadRow) }),
  },
  'GET /api/settled-forecasts': {
    summary:
      'Runs against the forecasts that were made of them before they were known, and how well those held',
    role: 'reader',
    query: z.strictObject({ setupId: uuid.optional(), titleId: uuid.optional() }),
    response: settledForecasts,
  },
  'GET /api/stated-figures': {
    summary:
      'Figures that people stated of titles, newest first: of a title, or of a setup and the titles it has runs of',
    role: 'reader',
    query: z.strictObject({ setupId: uuid.optional(), titleId: uuid.optional() }),
    response: statedFigureList,
  },
  'POST /api/stated-figures': {
    summary:
      'State a figure of a title: the frame model counts it as evidence. The rig is kept as it stands now',
    role: 'member',
    body: statedFigureBody,
    response: z.object({ id: uuid }),
  },
  'DELETE /api/stated-figures/:id': {
    summary: 'Take a stated figure back',
    role: 'member',
    audit: 'removal',
    params: byId,
    response: z.object({ removed: z.literal(true) }),
  },
  'GET /api/setups/:id/impossible-runs': {
    summary: 'Runs that somebody said cannot be made on a setup: they are advised no more',
    role: 'reader',
    params: byId,
    response: impossibleRuns,
  },
  'POST /api/setups/:id/impossible-runs': {
    summary: 'Remember that a run of the advice cannot be made on a setup, or that it can',
    role: 'member',
    params: byId,
    body: z.strictObject({
      /** As the advice names it, like "size:3840x2160". */
      experiment: z
        .string()
        .regex(/^(size|preset|screen|link|card|clock|power|uncap):/, {
          error: 'Run: one of the advice',
        })
        .max(200),
      impossible: z.boolean(),
    }),
    response: impossibleRuns,
  },
});

export const runContracts = contracts({
  'PUT /api/captures/:sha256': {
    summary: 'Send values before the run that names them: float32, little-endian, gzip',
    role: 'member',
    params: z.strictObject({ sha256 }),
    query: z.strictObject({ n: z.coerce.number().int().min(1).max(MAX_VALUES) }),
    body: bytes,
    bytes: true,
    bodyLimit: String(MAX_PACKED),
    response: z.object({ sha256 }),
  },
  'GET /api/runs': {
    summary: 'Runs that stand, newest first: of a setup, of a title, or those named',
    role: 'reader',
    query: runQuery,
    response: runPage,
  },
  'GET /api/runs/:id': {
    summary: 'One run with its figures',
    role: 'reader',
    params: byId,
    response: runEntry,
  },
  'POST /api/setups/:id/runs': {
    summary: 'Store a run of a setup as it stands now; its values were sent before',
    role: 'member',
    params: byId,
    body: runBody,
    bodyLimit: '256kb',
    response: runEntry,
  },
  'POST /api/runs/:id/said': {
    summary:
      'Say more of a run: settings, what was seen, cut, scenes, sensors. The run itself stays as it was',
    role: 'member',
    params: byId,
    body: saidBody,
    bodyLimit: '256kb',
    response: runEntry,
  },
  'GET /api/runs/:id/channels/:channel': {
    summary: 'Values of a channel as they were sent: float32, little-endian, gzip',
    role: 'reader',
    params: z.strictObject({ id: uuid, channel: z.enum(CHANNELS) }),
    response: z.unknown(),
  },
  'GET /api/csv-mappings': {
    summary: 'How files of known layouts are read',
    role: 'reader',
    response: mappings,
  },
  'POST /api/csv-mappings': {
    summary: 'Remember how files of a layout are read',
    role: 'member',
    body: csvMapping,
    response: csvMapping,
  },
  'GET /api/sessions': {
    summary: 'Planned sessions, newest first',
    role: 'reader',
    response: sessions,
  },
  'POST /api/sessions': {
    summary: 'Plan a session',
    role: 'member',
    body: sessionBody,
    response: sessions,
  },
  'DELETE /api/sessions/:id': {
    summary: 'Drop a planned session; its runs stay',
    role: 'member',
    audit: 'removal',
    params: byId,
    response: sessions,
  },
});
