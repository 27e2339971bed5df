import type { RequestOf, ResponseOf } from '@ruddy/core/base/contract';
import type { importContracts, partContracts } from '@ruddy/core/parts/contract';
import type { setupContracts } from '@ruddy/core/setups/contract';
import type { profileContracts, runContracts } from '@ruddy/core/runs/contract';
import type { planContracts, evaluateContracts } from '@ruddy/core/plan/contract';
import type { bringUpContracts, readingContracts } from '@ruddy/core/bring-up/contract';
import type { troubleContracts } from '@ruddy/core/troubleshoot/contract';
import type {
  benchContracts,
  streamContracts,
  practiceContracts,
} from '@ruddy/core/bench/contract';
import type {
  logContracts,
  statedContracts,
  outcomeContracts,
} from '@ruddy/core/compatibility/contract';
import type { catalogueContracts, searchContracts } from '@ruddy/core/buy/contract';
import type {
  accessContracts,
  accountContracts,
  auditContracts,
  backupContracts,
  dataContracts,
  loanContracts,
  newsContracts,
} from '@ruddy/core/workshop/contract';

/** Every endpoint of the server by method and path; types only, so that no page carries the schemas. */
export type Endpoints = typeof importContracts &
  typeof partContracts &
  typeof setupContracts &
  typeof profileContracts &
  typeof runContracts &
  typeof planContracts &
  typeof evaluateContracts &
  typeof bringUpContracts &
  typeof readingContracts &
  typeof troubleContracts &
  typeof benchContracts &
  typeof streamContracts &
  typeof practiceContracts &
  typeof logContracts &
  typeof statedContracts &
  typeof outcomeContracts &
  typeof catalogueContracts &
  typeof searchContracts &
  typeof accessContracts &
  typeof accountContracts &
  typeof auditContracts &
  typeof backupContracts &
  typeof dataContracts &
  typeof loanContracts &
  typeof newsContracts;
export type Endpoint = keyof Endpoints;
export type RequestTo<K extends Endpoint> = RequestOf<Endpoints[K]>;
export type AnswerOf<K extends Endpoint> = ResponseOf<Endpoints[K]>;
