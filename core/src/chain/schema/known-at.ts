import type { AttrPath, Chain } from './chain';

/** The value a chain has at an attribute path; undefined where the path leads to no attribute of it. */
function valueAt(chain: Chain, path: AttrPath): unknown {
  const [slot = '', key = '', ...rest] = path.split('/');
  const last = rest[rest.length - 1] ?? key;
  const of = (owner: unknown) => (owner as Record<string, unknown> | null | undefined)?.[last];
  switch (slot) {
    case 'host':
      return key === 'sockets'
        ? of(chain.host?.sockets.find((s) => s.key === rest[0]))
        : of(chain.host);
    case 'path':
      return of(chain.path?.find((p) => p.key === key)?.spec);
    case 'supplies':
      return of(chain.supplies.find((s) => s.key === key)?.spec);
    case 'picture':
      return of(chain.picture.find((s) => s.key === key)?.screen);
    case 'dock':
    case 'card':
    case 'system':
    case 'installed':
    case 'settings':
      return rest.length === 0 && key !== '' ? of(chain[slot]) : undefined;
    default:
      return undefined;
  }
}

/**
 * Is an attribute of a chain known exactly: a number, a word or a text, and neither "not sure", nor one of
 * several, nor a range? What is known is never asked. Worked example: `card/lengthMm` of a card 240 mm long is,
 * of one with 230 to 250 mm is not.
 * @param chain the chain
 * @param path of the attribute
 * @returns true where it is
 */
export function knownAt(chain: Chain, path: AttrPath): boolean {
  const value = valueAt(chain, path);
  return typeof value === 'number' || (typeof value === 'string' && value !== '');
}
