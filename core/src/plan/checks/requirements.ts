import { capital, ended, maybe, type Sentence } from '../../base/text';
import type { RequirementStatus } from '../../chain';
import { SOFTWARE_NAMES, type SoftwareRole } from '../../parts';
import { defineCheck, type DraftOf } from '../check';
import { type Doubt, kind } from '../kind';

/** A requirement as its author stated it, and what is known of it here; empty where nothing is. */
interface Requirement {
  title: string;
  who: string;
  needs: string;
  atLeast: string;
  atMost: string;
  have: string;
  effect: string;
  since: string;
  source: string;
  statedOn: string;
  to: string;
  whereFrom: string;
  workaround: string;
  workaroundState: NonNullable<RequirementStatus['workaround']> | 'none';
  workaroundFrom: string;
  workaroundUntil: string;
}

const isRole = (v: string): v is SoftwareRole => v in SOFTWARE_NAMES;
const softwareName = (v: string) => (isRole(v) ? SOFTWARE_NAMES[v].toLowerCase() : v);

/** "1.8 or newer", "1.8 to 2.1", "38 or older". */
function versionSpan({ atLeast: from, atMost: to }: Requirement): string {
  if (from && to) return from === to ? from : `${from} to ${to}`;
  return from ? `${from} or newer` : `${to} or older`;
}

function needText(p: Requirement): string {
  if (isRole(p.needs))
    return `${p.who} asks for ${softwareName(p.needs)} ${versionSpan(p)}; installed: ${p.have || 'not known'}.`;
  const since = p.since ? ` since ${p.since}` : '';
  if (p.needs === 'repackaged') return `${p.who} needs a repackaged driver${since}.`;
  return p.needs === 'refused' ? `${p.who} is not supported here${since}.` : `${p.who}:`;
}

function originText({ source, statedOn }: Requirement): string {
  return `From: ${source}${statedOn ? `, ${statedOn}` : ''}.`;
}

function workaroundText(p: Requirement): string {
  if (!p.workaround) return '';
  const from = p.workaroundFrom && `from ${p.workaroundFrom}`;
  const until = p.workaroundUntil && `until ${p.workaroundUntil}`;
  const worked = [from, until].filter((s) => s !== '').join(' ');
  const gone = p.workaroundState === 'ended' ? ' It no longer works with what is installed.' : '';
  return ` Workaround: ${p.workaround}${worked ? ` (worked ${worked})` : ''}.${gone}`;
}

/** The title of a requirement; where that is a number or a mark and no sentence, whose it is too. */
function titleText(p: Requirement): string {
  const title = p.title.trim();
  if (/\s/.test(title)) return title;
  return title === '' ? `A requirement of ${p.who}` : `Requirement "${title}" of ${p.who}`;
}

function installText({ to, whereFrom }: Requirement): string {
  if (to) return `Install ${to}${whereFrom ? ` from ${whereFrom}` : ''}.`;
  return 'Read what is installed and take what is asked for.';
}

function heed(p: Requirement): Sentence {
  return {
    what: titleText(p),
    why: `${needText(p)} Seen then: ${ended(p.effect)}`,
    todo: `${originText(p)}${workaroundText(p)}`,
  };
}

/** A requirement that a version may fulfil says first which one to install. */
function unmet(p: Requirement): Sentence {
  const words = heed(p);
  return { ...words, todo: isRole(p.needs) ? `${installText(p)} ${words.todo}` : words.todo };
}

function refused(p: Requirement, c: Doubt): Sentence {
  return { ...unmet(p), what: maybe(c, titleText(p), `${titleText(p)}, perhaps`) };
}

function firmwareFirst(p: Requirement): Sentence {
  const name = softwareName(p.needs);
  const to = p.to || versionSpan(p);
  return {
    what: p.have
      ? `Update ${name} before plugging: ${p.have} to ${to}`
      : `Have ${name} ${to} before plugging; what is installed is not known`,
    why: `${needText(p)} Seen with others: ${ended(p.effect)}`,
    todo: `A broken update can kill it: charger in, no sleep, cable untouched until it says it is done. ${installText(p)} ${originText(p)}${workaroundText(p)}`,
  };
}

const FINDINGS = {
  'software/refused': kind<Requirement>('blocks', refused, { cause: 'mobile-chip' }),
  'software/firmware-first': kind<Requirement>('care', firmwareFirst, { cause: 'dock-firmware' }),
  'software/unmet': kind<Requirement>('care', unmet, { cause: 'driver-range' }),
  'software/heed': kind<Requirement>('note', heed),
};
type Code = keyof typeof FINDINGS;

const FIRMWARE: readonly string[] = [
  'dockFirmware',
  'hostFirmware',
  'linkFirmware',
  'cardFirmware',
];

/**
 * The code of a requirement that is not met. What a version would mend never stops a plan while the version is not known: it can
 * still be installed. Once it is known to be the wrong one, what its author says counts.
 */
function codeOf(h: RequirementStatus): Code {
  const { severity, needs } = h.requirement;
  if (needs === 'heed') return 'software/heed';
  const mendable = h.role !== null || needs === 'repackaged';
  if (severity === 'blocks' && (h.state === 'unmet' || !mendable)) return 'software/refused';
  const firmware = h.role !== null && FIRMWARE.includes(h.role);
  if (firmware && severity !== 'note') return 'software/firmware-first';
  return severity === 'note' ? 'software/heed' : 'software/unmet';
}

/** The subject of a requirement: every part of a kind, a family, or one model. */
function subjectText({ maker, model, subject }: RequirementStatus['requirement']): string {
  if (maker !== 'any') return `${maker} ${model}`;
  return model === 'any' ? `every ${subject}` : model;
}

function paramsOf({ requirement: r, have, by, workaround }: RequirementStatus): Requirement {
  return {
    title: r.variant,
    who: subjectText(r),
    needs: r.needs,
    atLeast: r.atLeast,
    atMost: r.atMost,
    have,
    effect: r.effect,
    since: r.fromOn,
    source: r.source,
    statedOn: r.statedOn,
    to: by?.variant ?? '',
    whereFrom: by?.whereFrom ?? '',
    workaround: r.workaround,
    workaroundState: workaround ?? 'none',
    workaroundFrom: r.workaroundFrom,
    workaroundUntil: r.workaroundUntil,
  };
}

/**
 * Requirements that are not met or unknown, each with its part, the version, the day it holds from, and the symptom.
 */
export const requirements = defineCheck({
  id: 'requirements',
  reads: ['held'],
  searchGroup: 'software',
  findings: FINDINGS,
  run({ held }) {
    return held
      .filter((h) => h.state !== 'met')
      .map((h) => {
        const { subject, needs } = h.requirement;
        const slot = subject === 'adapter' ? 'path' : subject;
        return {
          code: codeOf(h),
          slots: h.role ? [slot, 'installed'] : [slot],
          about: `${h.index}`,
          certainty: h.state === 'unmet' || needs === 'heed' ? 'certain' : 'possible',
          hangsOn: h.hangsOn,
          params: paramsOf(h),
          source: 'requirement',
        };
      });
  },
});

const RELEASES = {
  'software/withdrawn': kind<{ what: SoftwareRole; have: string; on: string; to: string }>(
    'care',
    ({ what, have, on, to }) => ({
      what: `${capital(softwareName(what))} ${have} was withdrawn`,
      why: `Its maker took it back on ${on}.`,
      todo: to ? `Install ${to}.` : 'Go back to the release before it.',
    }),
    { cause: 'driver-range' },
  ),
  'software/newer': kind<{
    what: SoftwareRole;
    have: string;
    to: string;
    fixes: string;
    whereFrom: string;
  }>('note', ({ what, have, to, fixes, whereFrom }) => ({
    what: `${capital(softwareName(what))} ${to} is out, ${have} is installed`,
    why: fixes ? `It fixes: ${fixes}.` : 'What it fixes is not known.',
    todo: `Note what works now before you change it.${whereFrom ? ` From ${whereFrom}.` : ''}`,
  })),
};

/** What the known releases say of the versions installed. */
export const releases = defineCheck({
  id: 'releases',
  reads: ['news'],
  searchGroup: 'software',
  findings: RELEASES,
  run({ news }) {
    return news.flatMap(({ role, have, withdrawn, newer }) => {
      const common = { slots: ['installed'], about: role, source: 'requirement' } as const;
      const found: DraftOf<typeof RELEASES>[] = [];
      if (withdrawn) {
        const params = { what: role, have, on: withdrawn.withdrawnOn, to: newer?.variant ?? '' };
        found.push({ ...common, code: 'software/withdrawn', params });
      }
      if (newer) {
        const { variant: to, fixes, whereFrom } = newer;
        const params = { what: role, have, to, fixes, whereFrom };
        found.push({ ...common, code: 'software/newer', params });
      }
      return found;
    });
  },
});
