import type { ReleaseSpec, RequirementSpec, SoftwareRole } from '../../parts';
import type { AttrPath, Chain } from '../schema/chain';
import { isAdapter } from '../schema/shape';

/** A part of the chain as requirements and releases name it. */
interface Named {
  readonly maker: string;
  readonly model: string;
  readonly variant: string;
  readonly family?: string;
}

const like = (asked: string, ...names: (string | undefined)[]) => {
  const want = asked.trim().toLowerCase();
  return (
    want === 'any' ||
    names.some((n) => n !== undefined && n !== '' && n.trim().toLowerCase() === want)
  );
};

/**
 * Does a maker and model (or family, or "any") mean this part?
 * @param s what a requirement or release names
 * @param part the part
 * @returns true where it does
 */
export function means(s: { maker: string; model: string }, part: Named): boolean {
  return (
    like(s.maker, part.maker) &&
    like(s.model, part.model, `${part.model} ${part.variant}`, part.family)
  );
}

/**
 * The parts of a chain a requirement can be about.
 * @param chain the chain
 * @param subject kind of part
 * @returns parts of this kind
 */
export function subjectsOf(chain: Chain, subject: RequirementSpec['subject']): readonly Named[] {
  const one = (p: Named | null) => (p ? [p] : []);
  switch (subject) {
    case 'host':
      return one(chain.host);
    case 'dock':
      return one(chain.dock);
    case 'card':
      return one(chain.card);
    case 'system':
      return one(chain.system);
    case 'adapter':
      return (chain.path ?? []).flatMap(({ spec }) => (isAdapter(spec) ? [spec] : []));
  }
}

/** Which part a kind of software belongs to. */
export const ROLE_SUBJECT: Record<SoftwareRole, RequirementSpec['subject']> = {
  dockFirmware: 'dock',
  hostFirmware: 'host',
  systemBuild: 'system',
  driver: 'card',
  linkSoftware: 'dock',
  linkFirmware: 'host',
  cardFirmware: 'card',
};

/**
 * Does a release belong to a part of this chain?
 * @param r the release
 * @param chain the chain
 * @returns true where it does
 */
export function releaseTouches(r: ReleaseSpec, chain: Chain): boolean {
  return subjectsOf(chain, ROLE_SUBJECT[r.what]).some((p) => means(r, p));
}

/**
 * Is the card of a chain one a requirement is limited to?
 * @param andCard maker and model it names; empty for any
 * @param chain the chain
 * @returns true where it is
 */
export function cardMeant(andCard: string, chain: Chain): boolean {
  return (
    andCard === '' || (chain.card !== null && like(andCard, chain.card.model, chain.card.family))
  );
}

/**
 * The attribute a version is kept under.
 * @param role of the software
 * @returns its path
 */
export function installedPath(role: SoftwareRole): AttrPath {
  return `installed/${role}`;
}
