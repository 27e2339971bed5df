import { createServer, type Server } from 'node:http';
import { type Logger, pino } from 'pino';
import { createApp } from './app';
import { type Config, readConfig } from './config';
import { isSuperuser } from './platform/db/admin';
import { database } from './platform/db/database';
import { connect } from './platform/db/connect';
import { defineModels } from './models';
import { firstStart } from './workshop/demo';
import { scheduleFeeds } from './workshop/feeds';
import { runningJobs, stopJobs } from './platform/jobs/jobs';
import { hasKeeper } from './workshop/members';
import { prepareDatabase } from './prepare';
import { scheduleAudit } from './workshop/audit';
import { backUpBeforeUpgrade, scheduleBackups } from './workshop/backups';
import { watchLoop } from './platform/health/loop-watch';
import { Meter } from './platform/health/meter';
import { Streams } from './platform/streams/streams';
import { endThreads, waitingInThreads } from './platform/threads';

const FINISH_MS = 5000;
/** Closes connections that send head or body too slowly. */
const LIMITS = {
  headersTimeout: 15_000,
  requestTimeout: 300_000,
  connectionsCheckingInterval: 5000,
};
const NO_KEEPER = `people sign in here, and no keeper has a password yet.
  Without one other machines or accounts could come in.
  Give one first, on this machine alone: npm run keeper -- NAME   (or in the page under Workshop, Members)`;

function fail(problem: string): never {
  process.stderr.write(`ruddy-bridge: ${problem}\n`);
  process.exit(1);
}

type Services = Parameters<typeof createApp>[0];

/** Brings the database up to date and loads the demo at the first start; ends the process with the reason where it cannot. */
async function prepare(services: Services, config: Config, logger: Logger): Promise<void> {
  try {
    const kept = await backUpBeforeUpgrade(services);
    if (kept) logger.info({ backup: kept }, 'backed up before the upgrade');
    const { migrations, runs } = await prepareDatabase();
    if (migrations.length > 0) logger.info({ migrations }, 'schema brought up to date');
    if (runs > 0) logger.info({ runs }, 'figures of runs made anew');
    const demo = await firstStart(services, config.demoFile);
    if (demo === 'loaded') logger.info('demo data loaded');
  } catch (error) {
    // Users read the one line of fail(); the stack is for those who set a log level.
    logger.info({ err: error }, 'start');
    fail(
      `the database could not be prepared: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

/** Ends the process in order: streams, requests, long work, database. A second call changes nothing. */
function stopper(server: Server, streams: Streams, ends: readonly (() => Promise<void>)[]) {
  let stopping = false;
  return () => {
    if (stopping) return;
    stopping = true;
    // Streams end first: a server with an open answer never closes.
    void streams.close();
    server.close(() => {
      void Promise.allSettled(ends.map((end) => end())).finally(() =>
        database()
          .close()
          .finally(() => process.exit(0)),
      );
    });
    server.closeIdleConnections();
    // Requests that do not finish in time are cut, so that the database can be closed.
    setTimeout(() => server.closeAllConnections(), FINISH_MS).unref();
  };
}

function listen(server: Server, { port, host }: Config, logger: Logger): void {
  server.on('error', (error: NodeJS.ErrnoException) => {
    fail(
      error.code === 'EADDRINUSE'
        ? `port ${port} is taken; set PORT to another one`
        : error.message,
    );
  });
  server.listen(port, host, () => {
    const address = server.address();
    const taken = typeof address === 'object' && address ? address.port : port;
    process.send?.({ ready: true, port: taken });
    logger.info({ port: taken }, 'listening');
  });
}

async function main(): Promise<void> {
  const read = readConfig(process.env);
  if (!read.ok) fail(read.problem);
  const { config } = read;
  const logger = pino({ level: config.log });
  const { webDir, names, proxies } = config;
  defineModels(connect(config.databaseUrl));
  const grounds = {
    now: config.now,
    unexpected: (err: unknown) => logger.error({ err }, 'unexpected'),
  };
  const streams = new Streams(grounds, config.databaseUrl);
  const meter = new Meter({ jobs: runningJobs, threads: waitingInThreads });
  const services = {
    ...grounds,
    meter,
    ...(config.metricsToken !== null && { metricsToken: config.metricsToken }),
    streams,
    databaseUrl: config.databaseUrl,
    ...(config.signIn && { access: { secure: names.publicUrl?.protocol === 'https:' } }),
    ...(config.backups && { backups: { ...config.backups, url: config.databaseUrl } }),
  };
  await prepare(services, config, logger);
  if (config.signIn && !(await hasKeeper())) {
    await database().close();
    fail(NO_KEEPER);
  }
  if (await isSuperuser())
    logger.warn(
      'the role in DATABASE_URL is a superuser of PostgreSQL: a flaw here would reach the whole machine of the database; use one that only owns its database',
    );
  watchLoop((ms) => {
    logger.warn({ heldMs: ms, open: meter.running() }, 'events stood still');
  });
  const server = createServer(LIMITS, createApp(services, { webDir, logger, names, proxies }));
  const stop = stopper(server, streams, [
    stopJobs,
    scheduleFeeds(services),
    scheduleBackups(services),
    scheduleAudit(services),
    endThreads,
  ]);
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  // Exits when the parent process dies, which sends no signal on SIGKILL.
  process.on('disconnect', stop);
  listen(server, config, logger);
}

void main();
