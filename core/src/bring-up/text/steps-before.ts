import type { StepId } from '../../base';
import { adapterNames, endsInSlot, partName } from '../../chain';
import type { SoftwareRole } from '../../parts';
import type { StepFacts } from '../steps/types';

/** A step in words: what it is called, what to do, what must be seen, what to try if not, and what it means when that fails too. */
export interface StepWords {
  readonly title: string;
  readonly do: readonly string[];
  readonly see: string;
  readonly ifNot: string;
  readonly means: string;
}
export type WordsOf<K extends StepId> = Readonly<Record<K, (f: StepFacts) => StepWords>>;

export const hostOf = (f: StepFacts) => partName(f.chain.host) || 'the host';
/**
 * Name of the dock, or of the adapter that ends in a card slot and takes its place.
 *
 * @param f facts of the chain
 * @returns the name
 */
export function dockOf(f: StepFacts): string {
  const last = endsInSlot(f.chain.path) ? adapterNames(f.chain).at(-1) : undefined;
  return partName(f.chain.dock) || last || 'the dock';
}
export const cardOf = (f: StepFacts) => partName(f.chain.card) || 'the card';

/** The newest version that an open requirement asks for, as far as one is known. */
function wanted(f: StepFacts, role: SoftwareRole): string {
  const open = f.evaluation.predicted.body.held.filter((h) => h.role === role && h.state !== 'met');
  const by = open.flatMap((h) =>
    h.by ? [h.by.variant] : h.requirement.atLeast ? [h.requirement.atLeast] : [],
  );
  return by[0] ?? (role === 'dockFirmware' ? (f.chain.dock?.capFirmware ?? '') : '');
}

function flash(f: StepFacts, role: 'dockFirmware' | 'hostFirmware', what: string): StepWords {
  const have = f.chain.installed[role];
  const to = wanted(f, role);
  return {
    title: role === 'dockFirmware' ? 'Firmware of the dock' : 'Firmware of the host',
    do: [
      `Bring ${what} from ${have || 'a version not noted'} to ${to || "the maker's newest"}, with the maker's own program and guide.`,
      role === 'dockFirmware'
        ? 'Charger in, sleep off, nothing else on the dock. Touch no cable until it says it is done.'
        : 'Charger in, battery above half. Touch no button until it has started again by itself.',
    ],
    see: `The program names ${to || 'the new version'} as installed after a restart.`,
    ifNot:
      'Do not start it a second time at once. Wait as long as the guide says, then follow its part on a broken update.',
    means:
      'A flash that was interrupted can leave the device dead; then the maker has to bring it back.',
  };
}

export const BEFORE_WORDS: WordsOf<
  | 'save-work'
  | 'recovery-key'
  | 'read-versions'
  | 'network'
  | 'dock-firmware'
  | 'host-firmware'
  | 'link-software'
  | 'driver-before'
  | 'driver-after'
  | 'other-drive'
  | 'way-back'
  | 'charger'
  | 'print'
> = {
  'save-work': () => ({
    title: 'Save your work',
    do: ['Save what is open and close programs. The first plug may freeze or restart the host.'],
    see: 'Nothing is left that a restart could take.',
    ifNot: 'Copy it elsewhere first.',
    means: 'What is not saved can be lost.',
  }),
  'recovery-key': (f) => ({
    title: 'Recovery key at hand',
    do: [
      f.chain.settings.encryption === 'yes'
        ? 'Write the recovery key of the disk on paper, or have it on another machine.'
        : 'Look whether the disk is encrypted. If it is, write its recovery key on paper.',
      'Leave encryption on: a key on paper is enough.',
    ],
    see: 'The key is readable without this host.',
    ifNot: 'Export it again from the system settings or from the account it was kept under.',
    means: 'Encryption may take a card or a changed start-up for an attack and ask for the key.',
  }),
  'read-versions': () => ({
    title: 'Note the versions',
    do: ['Read what is installed now and note it, also where nothing will change.'],
    see: 'Every version that can be read stands here, before anything was changed.',
    ifNot: 'Leave open what cannot be read; a guess is worse than nothing.',
    means: 'When something breaks later, what changed is the first question.',
  }),
  network: () => ({
    title: 'A network without the radio card',
    do: ['Have a LAN cable or a stick with the drivers ready: the radio card gives up its slot.'],
    see: 'The driver files are on the host, or another way to the net works.',
    ifNot: 'Fetch them on another machine now.',
    means: 'After the next steps this host may be without a network.',
  }),
  'dock-firmware': (f) => flash(f, 'dockFirmware', dockOf(f)),
  'host-firmware': (f) => flash(f, 'hostFirmware', `${hostOf(f)} and its link controller`),
  'link-software': (f) => ({
    title: 'Software of the link',
    do: [
      `Install the control program of the link that the maker of ${hostOf(f)} names, before the card driver.`,
    ],
    see: 'It starts and lists the ports of the host.',
    ifNot: 'Look in the system settings: newer systems bring it themselves.',
    means: 'Without it a device may wait for approval where nobody sees it.',
  }),
  'driver-before': (f) =>
    driver(
      f,
      'Install it now, before the first plug. It may say that it finds no card: that is right.',
    ),
  'driver-after': (f) =>
    driver(f, 'Install it now that the card is listed. The picture may go for some seconds.'),
  'other-drive': (f) => ({
    title: 'Start from another drive',
    do: [
      f.port?.holds === 'system-drive'
        ? 'The slot of this route holds the drive the system starts from. Move the system to another drive and start from it once.'
        : 'Find out what is in the slot of this route. If the system starts from it, move the system to another drive first.',
      'Set the start order in the firmware setup to that drive.',
    ],
    see: 'The host starts from the other drive while the old one is still in.',
    ifNot: 'Put the start order back and copy the drive again.',
    means: 'With the drive out the host would find nothing to start from.',
  }),
  'way-back': (f) => ({
    title: 'A way back without a picture',
    do: [
      `Internal graphics of ${hostOf(f)} will be off. Set up a remote login from a second machine, or learn the reset of the firmware setup.`,
      'Try it once now, while the picture is there.',
    ],
    see: 'The second machine can restart this host.',
    ifNot: 'Leave internal graphics on until it can.',
    means: 'If the card stays silent there is no screen at all.',
  }),
  charger: (f) => ({
    title: "The host's own charger",
    do: [
      f.kind === 'direct'
        ? 'This link carries no power: plug in the charger of the host.'
        : 'The dock does not keep the battery up: plug in the charger of the host.',
    ],
    see: 'The host says that it charges.',
    ifNot: 'Try another port that charges, then another charger.',
    means: 'An empty battery in the middle of a step can cost more than time.',
  }),
  print: () => ({
    title: 'Print what comes next',
    do: [
      'Print the rest of this list, or photograph it: the picture may go, and the list with it.',
    ],
    see: 'The next steps are on paper or on another screen.',
    ifNot: 'Open this page on another machine, or write down the next five steps.',
    means: 'Without it you are alone with a dark screen.',
  }),
};

function driver(f: StepFacts, when: string): StepWords {
  const repackaged = f.chain.settings.driverKind === 'repackaged' || f.has('software/repackaged');
  const ceiling = f.evaluation.predicted.body.held.find(
    (h) => h.role === 'driver' && h.state !== 'met',
  );
  const asked = ceiling
    ? ` Asked for here: ${[ceiling.requirement.atLeast && `from ${ceiling.requirement.atLeast}`, ceiling.requirement.atMost && `to ${ceiling.requirement.atMost}`].filter(Boolean).join(' ')}.`
    : '';
  return {
    title: f.driver === 'before' ? 'Card driver first' : 'Card driver',
    do: [
      `Remove what an earlier card left behind, then take the driver for ${f.chain.card?.family || cardOf(f)}.${asked}`,
      repackaged
        ? 'Only a repackaged driver serves this card: check its source, its checksum and who vouches for it.'
        : when,
      ...(repackaged ? [when] : []),
    ],
    see: 'The installer ends without an error; its version stands below.',
    ifNot:
      'Take the version before it, or clean out the old driver in the safe start of the system.',
    means: 'Left-over and new drivers together are a common cause of crashes on plugging in.',
  };
}
