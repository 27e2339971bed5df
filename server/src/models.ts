import type { Sequelize } from 'sequelize';
import { useDatabase } from './platform/db/database';
import { defineMember } from './platform/access/models/member';
import { defineSession } from './platform/access/models/session';
import { defineLoginAttempt } from './platform/access/models/login-attempt';
import { defineJob } from './platform/jobs/models/job';
import { defineJobRow } from './platform/jobs/models/job-row';
import { defineSetting } from './setups/models/setting';
import { defineSetup } from './setups/models/setup';
import { defineSetupSlot } from './setups/models/setup-slot';
import { defineSetupRevision } from './setups/models/setup-revision';
import { defineEvent } from './setups/models/event';
import { definePart } from './parts/models/part';
import { definePartRevision } from './parts/models/part-revision';
import { defineSocket } from './parts/models/socket';
import { defineItem } from './parts/models/item';
import { defineItemFact } from './parts/models/item-fact';
import { defineRun } from './runs/models/run';
import { defineRunChannel } from './runs/models/run-channel';
import { defineRunStatistics } from './runs/models/run-statistics';
import { defineCapture } from './runs/models/capture';
import { defineProfile } from './runs/models/profile';
import { defineProfileFit } from './runs/models/profile-fit';
import { defineCsvMapping } from './runs/models/csv-mapping';
import { definePlannedSession } from './runs/models/planned-session';
import { defineLogEntry } from './plan/models/log-entry';
import { defineLogUnit } from './plan/models/log-unit';
import { defineClaim } from './compatibility/models/claim';
import { defineTitleNote } from './compatibility/models/title-note';
import { defineBench } from './bench/models/bench';
import { defineBenchEvent } from './bench/models/bench-event';
import { definePractice } from './bench/models/practice';
import { definePrice } from './buy/models/price';
import { defineRate } from './buy/models/exchange-rate';
import { defineSearch } from './buy/models/search';
import { defineLoan } from './workshop/models/loan';
import { defineFeed } from './workshop/models/feed';
import { defineFeedItem } from './workshop/models/feed-item';

/** Every table but that of the migrations has one model. */
const MODELS = [
  defineMember,
  defineSession,
  defineLoginAttempt,
  defineJob,
  defineJobRow,
  defineSetting,
  defineSetup,
  defineSetupSlot,
  defineSetupRevision,
  defineEvent,
  definePart,
  definePartRevision,
  defineSocket,
  defineItem,
  defineItemFact,
  defineRun,
  defineRunChannel,
  defineRunStatistics,
  defineCapture,
  defineProfile,
  defineProfileFit,
  defineCsvMapping,
  definePlannedSession,
  defineLogEntry,
  defineLogUnit,
  defineClaim,
  defineTitleNote,
  defineBench,
  defineBenchEvent,
  definePractice,
  definePrice,
  defineRate,
  defineSearch,
  defineLoan,
  defineFeed,
  defineFeedItem,
];

/** Makes a connected database the one of this process, with all models bound to it. */
export function defineModels(db: Sequelize): void {
  useDatabase(db, MODELS);
}
