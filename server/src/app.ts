import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { nestsTooDeep } from '@ruddy/core/base';
import { type Contract, contracts } from '@ruddy/core/base/contract';
import { noticeForwarding, proxyWarning } from './platform/audit/proxy';
import { guard, LOCAL_ONLY, type Names } from './platform/http/guard';
import { openApi } from './platform/http/openapi';
import { notFound, sendProblem, TOO_DEEP } from './platform/http/problem';
import * as z from 'zod';
import { receiveFile } from './platform/files/sent-file';
import { mount } from './platform/http/mount';
import { healthRoutes } from './platform/health/health-handlers';
import { files, pages } from './platform/http/pages';
import { BYTES, implement, type Route, type Services } from './platform/http/route';
import {
  accessRoutes,
  accountRoutes,
  auditRoutes,
  backupRoutes,
  loanRoutes,
  dataRoutes,
  newsRoutes,
} from './workshop/handlers';
import { catalogueRoutes, scoutRoutes } from './buy/handlers';
import { VERSION } from './workshop/backup/make';
import { importRoutes, partRoutes } from './parts/handlers';
import { logRoutes, outcomeRoutes, statedRoutes } from './compatibility/handlers';
import { judgeRoutes, planRoutes } from './plan/handlers';
import { practiceRoutes, benchRoutes } from './bench/handlers';
import { streamRoutes } from './platform/streams/stream-handlers';
import { bringUpRoutes, readingRoutes } from './bring-up/handlers';
import { profileRoutes, runRoutes } from './runs/handlers';
import { setupRoutes } from './setups/handlers';
import { troubleRoutes } from './troubleshoot/handlers';

/** Routes, declared once. */
const DECLARED: readonly Route[] = [
  ...dataRoutes,
  ...partRoutes,
  ...catalogueRoutes,
  ...importRoutes,
  ...setupRoutes,
  ...judgeRoutes,
  ...planRoutes,
  ...outcomeRoutes,
  ...practiceRoutes,
  ...readingRoutes,
  ...logRoutes,
  ...statedRoutes,
  ...troubleRoutes,
  ...bringUpRoutes,
  ...benchRoutes,
  ...healthRoutes,
  ...streamRoutes,
  ...runRoutes,
  ...profileRoutes,
  ...scoutRoutes,
  ...newsRoutes,
  ...accessRoutes,
  ...accountRoutes,
  ...auditRoutes,
  ...loanRoutes,
  ...backupRoutes,
];

const DESCRIPTION = contracts({
  'GET /api/openapi.json': {
    summary: 'This description',
    role: 'anyone',
    response: z.looseObject({}),
  },
});
/** Largest body of an endpoint that names no limit of its own. */
export const BODY_LIMIT = '256kb';
let described: Record<string, unknown> | undefined;

/** Every route there is, with the one that describes them. */
export const ROUTES: readonly Route[] = [
  ...DECLARED,
  ...implement(DESCRIPTION, {
    'GET /api/openapi.json': () =>
      Promise.resolve({ body: (described ??= { ...openApi(ROUTES, VERSION) }) }),
  }),
];

/** Refuses a body before it is parsed; the body parser passes the type of the error on. */
function refuseDeep(text: Uint8Array): void {
  if (nestsTooDeep(text)) throw Object.assign(new Error('nests too deep'), { type: TOO_DEEP });
}

/** What reads the body of an endpoint, within its limit. */
function bodyReader(r: Contract): RequestHandler {
  const limit = r.bodyLimit ?? BODY_LIMIT;
  if (r.file) return receiveFile(limit);
  if (r.bytes) return express.raw({ limit, type: BYTES });
  if (r.text) return express.text({ limit, type: [...r.text] });
  const verify = (_req: unknown, _res: unknown, text: Uint8Array) => refuseDeep(text);
  return express.json({ limit, type: 'application/json', verify });
}

const policy = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'"],
    // Angular puts component styles into style elements; scripts stay files only.
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:'],
    fontSrc: ["'self'"],
    objectSrc: ["'none'"],
    baseUri: ["'self'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
  },
};

/** A browser that came in encrypted comes in no other way for half a year. */
const HSTS_S = 182 * 86_400;
/** What no page of this program asks a browser for. */
const PERMISSIONS = [
  'camera',
  'microphone',
  'geolocation',
  'usb',
  'serial',
  'payment',
  'display-capture',
]
  .map((name) => `${name}=()`)
  .join(', ');

export interface AppOptions {
  webDir: string | null;
  logger: Logger;
  names?: Names;
  /** How many proxies in front may say where a request comes from. */
  proxies?: number;
}

/** What browsers are told of this site: scripts of its own only, no frame around it, the encrypted way in where there is one. */
function safeHeaders(app: Express, names: Names): void {
  const encrypted = names.publicUrl?.protocol === 'https:';
  // Over a way in without encryption browsers ignore this header, and say so at each page.
  const plain = names.beyond && !encrypted;
  app.use(
    helmet({
      contentSecurityPolicy: policy,
      strictTransportSecurity: encrypted && {
        maxAge: HSTS_S,
        includeSubDomains: false,
      },
      crossOriginEmbedderPolicy: false,
      ...(plain && { crossOriginOpenerPolicy: false, originAgentCluster: false }),
    }),
  );
  app.use((_req, res, next) => {
    res.setHeader('Permissions-Policy', PERMISSIONS);
    next();
  });
}

/** The whole application over one database; the caller listens and shuts down. */
export function createApp(services: Services, options: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  // Answers carry their own revision where one matters, and are never kept.
  app.set('etag', false);
  app.use(
    pinoHttp({
      logger: options.logger,
      genReqId: (_req, res) => {
        const id = randomUUID();
        res.setHeader('X-Request-Id', id);
        return id;
      },
      // Method, path and status only: no headers, no query words, no bodies.
      serializers: {
        req: (r: { id: string; method: string; url: string }) => ({
          id: r.id,
          method: r.method,
          path: r.url.split('?')[0],
        }),
        res: (r: { statusCode: number }) => ({ status: r.statusCode }),
      },
    }),
  );
  if (services.meter) app.use(services.meter.handler());
  app.set('trust proxy', options.proxies ?? 0);
  const proxies = options.proxies ?? 0;
  app.use((req, _res, next) => {
    if (services.access && noticeForwarding(req.header('x-forwarded-for'), proxies))
      options.logger.warn(proxyWarning());
    next();
  });
  app.use(guard(options.names ?? LOCAL_ONLY));
  const webDir =
    options.webDir && existsSync(join(options.webDir, 'index.html')) ? options.webDir : null;
  if (webDir) app.use(files(webDir));
  safeHeaders(app, options.names ?? LOCAL_ONLY);
  // To a browser on this machine a short answer is there sooner as it is. Compressing would hold events back until a block is full.
  const threshold = options.names?.beyond === true ? 1024 : 32 * 1024;
  app.use(
    compression({
      threshold,
      filter: (req, res) => req.path !== '/api/stream' && compression.filter(req, res),
    }),
  );
  app.use(mount(ROUTES, services, bodyReader));
  app.use('/api', (req) => {
    throw notFound(`address ${req.originalUrl.split('?')[0] ?? ''}`);
  });
  if (webDir) app.use(pages(webDir, () => services.now().toISOString()));
  app.use(sendProblem);
  return app;
}
