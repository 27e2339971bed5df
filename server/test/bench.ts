import { randomUUID } from 'node:crypto';
import type { Problem } from '@ruddy/core/base/contract';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { addSetup, type Harness } from './harness';

export type Answer = Awaited<ReturnType<Harness['api']['post']>>;
export const up = (r: Answer) => r.body as BringUp;
export const problem = (r: Answer) => r.body as Problem;
export const at = (s: Setup, path: string) => `/api/setups/${s.id}/${path}`;

/** What a person does while bringing a setup up, through the API. */
export function bench(h: () => Harness) {
  const begin = (s: Setup, over: object = {}) =>
    h()
      .api.post(at(s, 'attempts'))
      .send({ id: randomUUID(), purpose: 'bring-up', order: 'all-off', ...over });
  return {
    begin,
    note: (s: Setup, attempt: string, step: string, over: object = {}) =>
      h()
        .api.post(at(s, 'steps'))
        .send({ id: randomUUID(), attempt, step, state: 'done', ...over }),
    read: async (s: Setup) => up(await h().api.get(at(s, 'bring-up'))),
    async begun(name: string, over: object = {}): Promise<{ setup: Setup; attempt: string }> {
      const setup = await addSetup(h(), name);
      return { setup, attempt: up(await begin(setup, over)).attempts[0]!.id };
    },
  };
}
