import type { Request } from 'express';
import { validate } from 'uuid';
import { MemberModel } from '../access/models/member';
import type { Actor, Visit } from '../access/actor';
import { knownProblem } from '../http/problem';
import type { Answer, Route, Services } from '../http/route';
import { type AuditEntry, type AuditFrom, writeAudit } from './audit';

type Known = Visit & { actor: Actor | null };

/** What is not written down: a call without a session, and what was only put off: a question before the act, a wait. */
const UNRECORDED: ReadonlySet<string> = new Set(['confirm-first', 'code-needed']);

function refusalOf(error: unknown): { status: number; why: string; about: string | null } | null {
  const known = knownProblem(error);
  if (!known) return { status: 500, why: 'Something went wrong here', about: null };
  // A question for the code says nothing is wrong; a code that was wrong names the field.
  const putOff = UNRECORDED.has(known.more.code ?? '') && !known.more.errors;
  if (known.status === 429 || putOff) return null;
  return {
    status: known.status,
    why: known.more.detail ?? known.title,
    about: known.more.about ?? null,
  };
}

/** Where the handler does not say what it was about, the path does: the name of a member, or the id or name in it. */
async function fromPath(path: string, req: Request): Promise<string> {
  const named = Object.values(req.params).join(', ');
  if (!path.startsWith('/api/members/') || !validate(named)) return named;
  // What was done stays done where the name cannot be read.
  const member = await MemberModel.findByPk(named).catch(() => null);
  return member?.name ?? named;
}

/**
 * Runs what an endpoint does and writes into the audit trail, where its contract says so, who did it and how it ended:
 * before the answer, so that nothing that was answered is missing there.
 */
export async function recorded<T extends Answer<unknown> | null | undefined>(
  { method, path, contract: { audit } }: Route,
  services: Services,
  req: Request,
  known: Known,
  run: () => Promise<T>,
): Promise<T> {
  if (!audit) return run();
  const from = { address: known.address, requestId: String(req.id ?? '') || null };
  const write = (actor: Actor | null, entry: Pick<AuditEntry, 'about' | 'status' | 'why'>) =>
    writeAudit(services.now(), { ...from, actor } satisfies AuditFrom, {
      kind: audit,
      act: `${method} ${path}`,
      ...entry,
    }).catch((e: unknown) => services.unexpected?.(e));
  try {
    const answer = await run();
    if (answer !== null)
      await write(answer?.by ?? known.actor, {
        about: answer?.about ?? (await fromPath(path, req)),
        status: answer?.status ?? 200,
      });
    return answer;
  } catch (error) {
    const refused = refusalOf(error);
    if (refused) {
      const about = refused.about ?? (await fromPath(path, req));
      await write(known.actor, { ...refused, about });
    }
    throw error;
  }
}
