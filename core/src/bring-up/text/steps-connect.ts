import { formatWhole, rate } from '../../base/text';
import { adapterNames, isAdapter, lookAlikes, partName, portName } from '../../chain';
import type { StepFacts } from '../steps/types';
import { cardOf, dockOf, hostOf, type WordsOf } from './steps-before';

/**
 * Port to use, by place and mark, and the one that it must not be mistaken for.
 *
 * @param f facts of the chain
 * @returns the words
 */
export function portWords(f: StepFacts): string {
  const { port } = f;
  if (!port) return 'the port of the plan';
  const others = f.chain.host ? lookAlikes(f.chain.host, port.key) : [];
  const mark = port.mark && port.mark !== 'nothing' ? `, marked "${port.mark}"` : '';
  const not =
    others.length > 0
      ? `; not ${others.map((o) => `${portName(o)}${o.mark ? ` ("${o.mark}")` : ''}`).join(', ')}: it looks the same and is another`
      : '';
  return `${portName(port)}${mark}${not}`;
}

/** Which plug goes where: into a port by its mark, from the adapter inside to the dock, or the lead the dock brings. */
function plugWords(f: StepFacts): string {
  const cables = (f.chain.path ?? [])
    .filter((p) => !isAdapter(p.spec))
    .map((p) => partName(p.spec));
  const lead =
    f.chain.path?.length === 0 ? `The lead of ${dockOf(f)}` : cables.join(' + ') || 'The cable';
  if (!f.inside) return `${lead}: host end into ${portWords(f)}.`;
  return `${lead}: one end to ${adapterNames(f.chain)[0] ?? 'the slot'}, the other to ${dockOf(f)}.`;
}

function expectedSpan(f: StepFacts): string {
  const { gen, lanes } = f.evaluation.predicted.link.readouts;
  return gen && lanes ? `×${formatWhole(lanes)} Gen${formatWhole(gen)}` : 'a width not known yet';
}

function copy(f: StepFacts, way: 'down' | 'up') {
  const { copy: rates, healthyFrom } = f.evaluation.predicted.link.readouts;
  const from = way === 'down' ? 'host to card' : 'card to host';
  return {
    title: way === 'down' ? 'Copy rate to the card' : 'Copy rate back',
    do: [
      `Run the copy test ${from}, heavy mode, pinned memory, card under load, hub and LAN quiet. Type what it says, with its unit.`,
      ...(way === 'down' ? ['Three runs and the middle one are worth more than one best.'] : []),
    ],
    see: `${rate(rates?.[way])} Gb/s expected; healthy from ${rate(healthyFrom?.[way])}.`,
    ifNot: 'Swap one thing at a time, the cable first, and read again.',
    means:
      'Low here and as expected in the read-outs: cable, firmware, or something else on the link.',
  };
}

const hostUp = (f: StepFacts) => f.order === 'host-first' || f.order === 'any-time';

export const CONNECT_WORDS: WordsOf<
  | 'mains-out'
  | 'host-down'
  | 'plug-cable'
  | 'dock-on'
  | 'host-start'
  | 'approve'
  | 'listed'
  | 'driver-holds'
  | 'read-outs'
  | 'copy-down'
  | 'copy-up'
  | 'soak'
> = {
  'host-down': (f) => ({
    title: 'Host off',
    do: [
      `Shut ${hostOf(f)} down: off, not asleep.${f.kind === 'direct' ? ' A direct link is plugged with everything off, always.' : ''}`,
    ],
    see: 'Its lamp and fans are off.',
    ifNot: 'Switch off a fast start that only sleeps, then shut down again.',
    means: 'A host that sleeps has not let go of the link.',
  }),
  'mains-out': (f) => ({
    title: 'Dock off, mains out',
    do: [
      `Switch ${f.chain.dock ? dockOf(f) : 'the supply of the card'} off and pull its mains cable.`,
    ],
    see: 'No lamp on either side.',
    ifNot: 'Something still feeds it: find that cable.',
    means: 'Everything off means everything.',
  }),
  'plug-cable': (f) => ({
    title: f.inside ? 'Cable to the dock' : 'Cable into the marked port',
    do: [
      plugWords(f),
      ...(f.kind === 'direct' && f.order !== 'all-off'
        ? ['Before: the supply of the dock is off at its switch, or its mains out.']
        : []),
      ...(f.order === 'host-first'
        ? ['The host has started and is quiet; then plug, once, and wait.']
        : []),
      'Push until it is home on both ends; nothing pulls on it sideways.',
    ],
    see: hostUp(f)
      ? 'Within ten seconds the host says that something new is there.'
      : 'Both plugs are home. Nothing happens yet, and that is right.',
    ifNot: hostUp(f)
      ? 'Read the mark beside the port again, turn the plug round, then take another cable.'
      : 'Never force it: another port has the same shape.',
    means: 'The shape of the plug proves nothing; the mark does.',
  }),
  'dock-on': (f) => ({
    title: f.order === 'slaved' ? 'The dock follows' : 'Dock on',
    do: [
      f.order === 'slaved'
        ? 'The dock has its mains; the host drives it. Touch no button of the dock.'
        : `Mains in, ${f.chain.dock ? dockOf(f) : 'the supply of the card'} on. Wait for its lamp.`,
    ],
    see: `A steady lamp and turning fans within ${f.rule('steps.lampS')} s.`,
    ifNot: 'Lamp off: switch of the supply, mains cable, then the plugs inside, with mains out.',
    means: 'Without power no cable or driver can help.',
  }),
  'host-start': (f) => ({
    title: 'Host on',
    do: [
      ...(f.kind === 'direct' && f.order === 'slaved'
        ? ['The supply of the dock on at its switch: it waits for the host.']
        : []),
      `Start ${hostOf(f)} and let it be. The first start may take longer and may restart once.`,
    ],
    see:
      f.chain.settings.internalGraphics === 'off'
        ? 'A picture on the screen at the card.'
        : 'The system comes up as always, on the screen it had.',
    ifNot:
      'Dark for three minutes: hold the power button, dock cable out with everything off, start undocked. Then note it here.',
    means: 'This host may want another order, or the firmware asks something where nobody sees it.',
  }),
  approve: () => ({
    title: 'Approve the dock',
    do: [
      'When the system asks, approve it "always" rather than "once". No question: look under the list of the link.',
      'Note how it stands and the security level of the link.',
    ],
    see: "The dock stands in the link's own list as approved.",
    ifNot:
      'Look in the firmware setup for the security level, and in the control program of the link.',
    means: 'A dock that is not approved gives its screen and hub, but no card.',
  }),
  listed: (f) => ({
    title: 'Listed by its own name',
    do: [
      `Look at the list of devices: ${cardOf(f)} stands there by its own name, as if it were inside.`,
      f.kind === 'tunnel'
        ? "The dock itself is no display device: its router stands in the link's own list, its bridges in the bus tree."
        : 'Between host and card there is only a port of the host, no router.',
    ],
    see: `${cardOf(f)} is listed.`,
    ifNot: hostUp(f)
      ? 'Wait a minute, then look for approval, port and cable in that order.'
      : 'Restart once with the dock on before anything is changed.',
    means: 'Not listed means that the link or the power is wrong; no driver can mend it.',
  }),
  'driver-holds': (f) => ({
    title: 'Driver loaded',
    do: [`Open the properties of ${cardOf(f)}: no error, and the version of the driver you noted.`],
    see: 'No error code; the driver names the card.',
    ifNot:
      'Not enough resources: another port, or the resource window in the firmware setup. Refused: the driver that the maker of the card or dock allows.',
    means: 'Listed without a driver the card draws nothing, and rates rest.',
  }),
  'read-outs': (f) => ({
    title: 'Width and rate under load',
    do: [
      'Put the card under load and read width and rate of the slot, and of the router where there is one. Type them, or paste what the system prints.',
    ],
    see: `${expectedSpan(f)} in front of the card. The card could do more; that is normal here.`,
    ifNot:
      'Read while idle it proves nothing: read again under load. Then seat cable and card again, mains out.',
    means: 'Narrow is seating, riser or host wiring; slow is cable, slot or driver.',
  }),
  'copy-down': (f) => copy(f, 'down'),
  'copy-up': (f) => copy(f, 'up'),
  soak: (f) => ({
    title: `${f.rule('steps.loadMinutes')} minutes under load`,
    do: [
      'Note the error counters of the link before. Load the card and copy at the same time.',
      `After ${f.rule('steps.loadMinutes')} minutes note them again, and how often the link went down.`,
    ],
    see: 'No drop, no restart of the dock, no error that could not be mended, hardly any that was.',
    ifNot: 'Drops: supply and power plugs. Errors: a shorter cable, fewer joints.',
    means: 'What breaks in minutes here breaks in the middle of an evening.',
  }),
};
