import type { PracticeStep } from '@ruddy/core/bench';
import { execute } from '../../platform/db/database';

/** Adds a test to a practice that is not over and does not hold it yet, in one statement: two at once add it once. */
export function addStep(id: string, step: PracticeStep): Promise<void> {
  return execute(
    `UPDATE practices SET steps = steps || $2::jsonb
     WHERE id = $1 AND named IS NULL AND NOT steps @> $3::jsonb`,
    [id, JSON.stringify([step]), JSON.stringify([{ test: step.test }])],
  );
}
