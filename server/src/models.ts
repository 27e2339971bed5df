import type { Sequelize } from 'sequelize';
import { useDatabase } from './platform/db/database';
import { defineMember, MemberModel } from './platform/access/models/member';
import { defineSession, SessionModel } from './platform/access/models/session';
import { defineKnownBrowser } from './platform/access/models/known-browser';
import { defineRecoveryCode } from './platform/access/models/recovery-code';
import { defineAuditEvent } from './platform/audit/models/audit-event';
import { defineLoginAttempt } from './platform/access/models/login-attempt';
import { defineJob } from './platform/jobs/models/job';
import { defineJobRow } from './platform/jobs/models/job-row';
import { defineSetting } from './setups/models/setting';
import { defineSetup, SetupModel } from './setups/models/setup';
import { defineSetupSlot } from './setups/models/setup-slot';
import { defineSetupRevision, SetupRevisionModel } from './setups/models/setup-revision';
import { defineEvent, EventModel } from './setups/models/event';
import { definePart, PartModel } from './parts/models/part';
import { definePartRevision, PartRevisionModel } from './parts/models/part-revision';
import { defineSocket } from './parts/models/socket';
import { defineItem, ItemModel } from './parts/models/item';
import { defineItemFact } from './parts/models/item-fact';
import { defineRun } from './runs/models/run';
import { defineRunChannel, RunChannelModel } from './runs/models/run-channel';
import { defineRunStatistics } from './runs/models/run-statistics';
import { defineCapture, CaptureModel } from './runs/models/capture';
import { defineProfile } from './runs/models/profile';
import { defineRunForecast } from './runs/models/run-forecast';
import { defineStatedFigure } from './runs/models/stated-figure';
import { defineImpossibleRun } from './runs/models/impossible-run';
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
import { defineLoan, LoanModel } from './workshop/models/loan';
import { defineFeed, FeedModel } from './workshop/models/feed';
import { defineFeedItem, FeedItemModel } from './workshop/models/feed-item';

/** Every table but that of the migrations has one model. */
const MODELS = [
  defineMember,
  defineSession,
  defineLoginAttempt,
  defineKnownBrowser,
  defineRecoveryCode,
  defineAuditEvent,
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
  defineRunForecast,
  defineStatedFigure,
  defineImpossibleRun,
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

/** How rows belong together, for reads that need both; the foreign keys themselves are the columns'. */
function associate(): void {
  SessionModel.belongsTo(MemberModel, { as: 'member', foreignKey: 'memberId', constraints: false });
  EventModel.belongsTo(MemberModel, { as: 'author', foreignKey: 'createdBy', constraints: false });
  EventModel.belongsTo(SetupModel, { as: 'setup', foreignKey: 'setupId', constraints: false });
  SetupRevisionModel.belongsTo(MemberModel, { as: 'author', foreignKey: 'by', constraints: false });
  PartRevisionModel.belongsTo(MemberModel, { as: 'author', foreignKey: 'by', constraints: false });
  LoanModel.belongsTo(MemberModel, { as: 'member', foreignKey: 'memberId', constraints: false });
  FeedItemModel.belongsTo(FeedModel, { as: 'feed', foreignKey: 'feedId', constraints: false });
  RunChannelModel.belongsTo(CaptureModel, {
    as: 'capture',
    foreignKey: 'sha256',
    constraints: false,
  });
  ItemModel.belongsTo(PartModel, { as: 'part', foreignKey: 'partId', constraints: false });
}

/** Makes a connected database the one of this process, with all models bound to it. */
export function defineModels(db: Sequelize): void {
  useDatabase(db, [...MODELS, associate]);
}
