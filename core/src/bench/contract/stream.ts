import * as z from 'zod';
import { uuid } from '../../base/contract';
import { jobSchema } from '../../parts/contract';
import { benchEvent } from './bench';

/** What can be watched: a bench, whose every event has a number without gaps; a job, whose newest state stands for those before. */
export const TOPIC_KINDS = ['bench', 'job'] as const;
export type TopicKind = (typeof TOPIC_KINDS)[number];
const ID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
const TOPIC = `(?:${TOPIC_KINDS.join('|')})/${ID}`;
export const topicSchema = z
  .string()
  .regex(new RegExp(`^${TOPIC}$`), { error: 'a topic like bench/ID' });

const list = new RegExp(`^${TOPIC}(?:,${TOPIC}){0,31}$`);
const positions = new RegExp(`^(?:${TOPIC}=\\d{1,9}(?:,${TOPIC}=\\d{1,9}){0,31})?$`);

/** One stream of a tab: up to 32 topics, each from after the position it has seen. */
export const streamQuery = z.strictObject({
  topics: z.string().regex(list, { error: '1 to 32 of them, like bench/ID,job/ID' }),
  after: z.string().regex(positions, { error: 'positions like bench/ID=12' }).default(''),
});

/**
 * Reads positions as they stand in the ids of a stream and in `after`.
 * @param text topic=seq, with commas; a topic is `bench/ID` or `job/ID`
 * @returns number by topic; none where the text is something else
 */
export function readPositions(text: string): Map<string, number> {
  if (!positions.test(text) || text === '') return new Map();
  return new Map(
    text.split(',').map((p) => {
      const [topic = '', seq = '0'] = p.split('=');
      return [topic, Number(seq)];
    }),
  );
}

/** What comes down a stream. `gone`: what was watched was taken away. */
export const streamEvent = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('bench'), topic: topicSchema, event: benchEvent }),
  z.object({ kind: z.literal('job'), topic: topicSchema, seq: z.number().int(), job: jobSchema }),
  z.object({ kind: z.literal('gone'), topic: topicSchema, id: uuid }),
]);
export type StreamEvent = z.infer<typeof streamEvent>;
