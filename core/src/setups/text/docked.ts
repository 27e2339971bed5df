import { type Installed, type Settings, SOFTWARE_NAMES, type SoftwareRole } from '../../parts';
import {
  COUPLED_ACTS,
  COUPLED_SEEN,
  type Coupling,
  type Docked,
  FORCED_BY,
  type Profile,
  type Program,
  type Tuning,
  USED_CARD,
} from '../docked';

/**
 * What is installed, in one line.
 * @param installed versions
 * @returns "dock firmware 1.8, card driver 41.2"; empty where nothing is noted
 */
export function installedWords(installed: Partial<Installed>): string {
  return (Object.keys(SOFTWARE_NAMES) as SoftwareRole[])
    .flatMap((r) => (installed[r] ? [`${SOFTWARE_NAMES[r].toLowerCase()} ${installed[r]}`] : []))
    .join(', ');
}

/**
 * A docked or undocked profile, in one line.
 * @param p the profile
 * @returns words; empty where nothing is noted
 */
export function profileWords(p: Profile & { internalGraphics?: 'on' | 'off' | null }): string {
  const w = (label: string, value: number | string | null | undefined, unit = '') =>
    value === null || value === undefined || value === '' ? [] : [`${label} ${value}${unit}`];
  return [
    ...w('mode', p.powerMode),
    ...w('sustained', p.sustainedW, ' W'),
    ...w('two minutes', p.minutesW, ' W'),
    ...w('peak', p.peakW, ' W'),
    ...w('at most', p.tempLimitC, ' °C'),
    ...w('shared memory', p.sharedGB, ' GB'),
    ...w('internal graphics', p.internalGraphics),
    ...w('', p.resolution).map((s) => s.trim()),
    ...w('scaling', p.scalingPercent, ' %'),
    ...w('', p.note).map((s) => s.trim()),
  ].join(', ');
}

/**
 * What happens on one side when the other is switched.
 * @param c the coupling
 * @returns "Host switched on, dock off: the other side starts"
 */
export function couplingWords(c: Coupling): string {
  const other = c.act.startsWith('dock')
    ? 'host'
    : c.act === 'plug' || c.act === 'unplug'
      ? 'host'
      : 'dock';
  return `${COUPLED_ACTS[c.act]}, ${other} ${c.other}: ${COUPLED_SEEN[c.seen]}`;
}

/**
 * A program and what is set for it.
 * @param p the program
 * @returns words
 */
export function programWords(p: Program): string {
  const uses = p.uses === null ? 'not looked at' : USED_CARD[p.uses];
  return `${p.name}: ${uses}, ${FORCED_BY[p.forced]}${p.note ? ` (${p.note})` : ''}`;
}

/**
 * A tuning of the card.
 * @param t the tuning
 * @returns words
 */
export function tuningWords(t: Tuning): string {
  const gain =
    t.gainPercent === null
      ? 'gain not measured'
      : `${t.gainPercent > 0 ? '+' : ''}${t.gainPercent} %`;
  return `${t.what}${t.from || t.to ? ` ${t.from || 'not noted'} to ${t.to || 'not noted'}` : ''}: ${gain}`;
}

/**
 * What of living with the dock the record compares from one revision to the next.
 * @param d docked and undocked settings, buttons, programs and tuning
 * @param s settings of the setup
 * @returns words by name
 */
export function dockedNames(d: Docked, s: Settings): Record<string, string> {
  const word = (v: unknown) => (typeof v === 'string' ? v : '');
  return {
    approval: word(s.approval),
    'security level': word(s.securityLevel),
    'internal graphics': word(s.internalGraphics),
    'docked settings': profileWords(d.docked),
    'undocked settings': profileWords(d.undocked),
    buttons: d.buttons.map(couplingWords).join('; '),
    programs: d.programs.map(programWords).join('; '),
    tuning: d.tuning.map(tuningWords).join('; '),
  };
}
