import { bare, type Range } from '../base';
import type { Chain, Shown } from '../chain';
import { type Installed, type Settings, SOFTWARE_ROLES, type SoftwareRole } from '../parts';
import type { Coverage } from './areas';
import type { FindingCode } from './codes';
import { evaluate } from './evaluate';
import type { EvaluateInput, Evaluation, VerdictState } from './types';
import type { Finding } from './finding';

/** A change that needs no other part: a setting, an installed version, a load taken off, a screen hung otherwise. */
export interface Adjust {
  readonly words: string;
  readonly settings?: Partial<Settings>;
  readonly installed?: Partial<Installed>;
  readonly dropLoad?: number;
  readonly screen?: {
    readonly index: number;
    readonly by?: Shown['by'];
    readonly plug?: Shown['plug'];
  };
}

/**
 * The chain with an adjustment made.
 * @param chain not modified
 * @param a the adjustment
 * @returns the chain
 */
export function applyAdjust(chain: Chain, a: Adjust): Chain {
  return {
    ...chain,
    settings: { ...chain.settings, ...a.settings },
    installed: { ...chain.installed, ...a.installed },
    loads: a.dropLoad === undefined ? chain.loads : chain.loads.filter((_, i) => i !== a.dropLoad),
    picture: a.screen
      ? chain.picture.map((p, i) =>
          i === a.screen?.index
            ? { ...p, by: a.screen.by ?? p.by, plug: a.screen.plug ?? p.plug }
            : p,
        )
      : chain.picture,
  };
}

const setting = (words: string, settings: Partial<Settings>): Adjust => ({ words, settings });
const CHARGER = setting("Use the host's own charger", { ownCharger: 'yes' });
const LID_OFF = setting('Leave the lid of the dock off', { cardSits: 'lid-off' });
const OUTSIDE = setting('Put the card outside the case', { cardSits: 'outside' });
const LOWER = setting("Lower the card's power limit by 20 %", { overclockPercent: -20 });

const FIXED: Partial<Record<FindingCode, readonly Adjust[]>> = {
  'charging/drains': [CHARGER],
  'charging/refused': [CHARGER],
  'charging/none': [CHARGER],
  'power/over': [CHARGER, LOWER],
  'power/tight': [CHARGER, LOWER],
  'power/peak': [LOWER, CHARGER],
  'fit/too-big': [LID_OFF, OUTSIDE],
  'fit/bend': [LID_OFF, OUTSIDE],
  'cooling/hot': [LOWER],
  'cooling/lid': [setting('Open the lid', { lid: 'open' })],
  'software/approval': [setting('Approve the dock always', { approval: 'always' })],
  'software/security': [
    setting('Set the link to ask once for each dock', { securityLevel: 'user' }),
  ],
  'software/repackaged': [setting("Go back to the card maker's driver", { driverKind: 'maker' })],
  'software/driver-class': [
    setting('Install the professional driver', { driverClass: 'professional' }),
  ],
  'preflight/recovery-key': [setting('Have the recovery key at hand', { recoveryKey: 'yes' })],
  'preflight/way-back': [
    setting('Leave internal graphics on', { internalGraphics: 'on' }),
    setting('Arrange a remote login', { wayBack: 'yes' }),
  ],
  'screen/panel': [setting('Put the screen on the card', { toPanel: 'no' })],
};

function installs(f: Finding): Adjust[] {
  const role = String(f.params['needs'] ?? f.params['what'] ?? '') as SoftwareRole;
  if (!SOFTWARE_ROLES.includes(role)) return [];
  const to = String(f.params['to'] ?? '') || String(f.params['atLeast'] ?? '');
  return to ? [{ words: `Install ${to}`, installed: { [role]: to } }] : [];
}

function screens(f: Finding, chain: Chain): Adjust[] {
  const index = chain.picture.findIndex((p) => p.key === f.about);
  const shown = chain.picture[index];
  if (!shown) return [];
  const plug = shown.plug === 'hdmi' ? ('displayport' as const) : ('hdmi' as const);
  const word = plug === 'hdmi' ? 'HDMI' : 'DisplayPort';
  return [
    { words: `Use ${word} instead`, screen: { index, plug } },
    ...(shown.by === 'dock'
      ? [{ words: 'Put the screen on the card', screen: { index, by: 'card' as const } }]
      : []),
  ];
}

/**
 * What could be changed about a finding without another part.
 * @param f the finding
 * @param chain the chain
 * @returns adjustments, the least work first
 */
export function adjustmentsFor(f: Finding, chain: Chain): readonly Adjust[] {
  switch (f.code) {
    case 'software/firmware-first':
    case 'software/refused':
    case 'software/unmet':
    case 'software/withdrawn':
    case 'software/newer':
      return installs(f);
    case 'dock/firmware-cap':
      return chain.dock?.capFirmware
        ? [
            {
              words: `Install dock firmware ${chain.dock.capFirmware}`,
              installed: { dockFirmware: chain.dock.capFirmware },
            },
          ]
        : [];
    case 'link/shared': {
      const index = chain.loads.findIndex((l) => l.kind === f.params['kind']);
      return index < 0 ? [] : [{ words: 'Take it off the dock', dropLoad: index }];
    }
    case 'screen/no-plug':
    case 'screen/too-much':
    case 'screen/through-dock':
      return screens(f, chain);
    default:
      return FIXED[f.code] ?? [];
  }
}

/** A change judged: what it leads to. */
export interface Fix<C> {
  readonly candidate: C;
  readonly verdict: VerdictState;
  /** How many of its areas are known: a part known less than the one it replaces is not offered first. */
  readonly coverage: Coverage;
  readonly usable: Range | null;
  readonly stops: number;
  readonly care: number;
}

const STATES: readonly VerdictState[] = ['works', 'care', 'unknown', 'blocked'];
const count = (e: Evaluation, severity: string) =>
  e.findings.filter((f) => f.severity === severity).length;
const made = (e: Evaluation, f: Pick<Finding, 'code' | 'about'>) =>
  e.findings.find(
    (x) =>
      x.code === f.code && (f.about === undefined || x.about === undefined || x.about === f.about),
  );

/** Is the finding gone, or at least no longer certain? */
function better(before: Finding, after: Finding | undefined): boolean {
  return (
    after === undefined ||
    (before.certainty === 'certain' &&
      after.certainty === 'possible' &&
      before.severity === 'blocks')
  );
}

/**
 * Of several changes those that take a finding away, make nothing else stop it and cost no rate: by verdict, by how
 * many areas are open, by what still needs care, by the rate to the card, then those that need no other part. Every
 * change is judged whole, so that a cure that brings another trouble shows it.
 * @param input chain and context
 * @param finding that is to go
 * @param candidates changes with their chains
 * @param most how many are given back
 * @returns best first
 */
export function rankFixes<C extends { readonly chain: Chain; readonly buys?: boolean }>(
  input: EvaluateInput,
  finding: Pick<Finding, 'code' | 'about'>,
  candidates: readonly C[],
  most = 3,
): Fix<C>[] {
  const before = evaluate(input);
  const now = made(before, finding);
  if (!now) return [];
  const was = bare(before.predicted.link.usable?.down);
  const judged = candidates.flatMap((candidate): Fix<C>[] => {
    const e = evaluate({ ...input, chain: candidate.chain });
    if (!better(now, made(e, finding)) || count(e, 'blocks') > count(before, 'blocks')) return [];
    const usable = bare(e.predicted.link.usable?.down);
    if (usable && was && usable.hi < was.lo - 1e-9) return [];
    const { verdict, coverage } = e.predicted;
    return [
      {
        candidate,
        verdict: verdict.state,
        coverage,
        usable,
        stops: count(e, 'blocks'),
        care: count(e, 'care'),
      },
    ];
  });
  const order = (f: Fix<C>) => STATES.indexOf(f.verdict);
  const open = (f: Fix<C>) => f.coverage.of - f.coverage.known;
  return judged
    .sort(
      (a, b) =>
        order(a) - order(b) ||
        open(a) - open(b) ||
        a.stops - b.stops ||
        a.care - b.care ||
        (b.usable?.lo ?? 0) - (a.usable?.lo ?? 0) ||
        Number(a.candidate.buys ?? false) - Number(b.candidate.buys ?? false),
    )
    .slice(0, most);
}
