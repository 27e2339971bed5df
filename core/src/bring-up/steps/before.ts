import { SOFTWARE_ROLES, type SoftwareRole } from '../../parts';
import type { StepDef, StepFacts, StepField } from './types';

const version = (role: SoftwareRole): StepField => ({ kind: 'version', role });
const UP = ['bring-up'] as const;
/** Versions that only the link of a tunnel has. */
const OF_TUNNEL: readonly SoftwareRole[] = ['dockFirmware', 'linkSoftware', 'linkFirmware'];
/** Steps that may take the picture away wait for what is on paper. */
const BEFORE_PLUG = ['save-work', 'recovery-key', 'print'] as const;

/** Does an open requirement, or a cap that firmware lifts, ask for newer firmware of this part? */
function firmwareAsked(f: StepFacts, role: SoftwareRole): boolean {
  const held = f.evaluation.predicted.body.held.some((h) => h.role === role && h.state !== 'met');
  return held || (role === 'dockFirmware' && f.has('dock/firmware-cap'));
}

/** A tunnel on a system with a control program of its own for the link. Others bring what they need. */
function hasLinkSoftware(f: StepFacts): boolean {
  const asked = f.chain.installed.linkSoftware !== '' || firmwareAsked(f, 'linkSoftware');
  return (
    f.kind === 'tunnel' && (asked || f.chain.system === null || f.chain.system.family === 'windows')
  );
}

const driverFields = [
  { kind: 'setting', key: 'driverKind' },
  { kind: 'version', role: 'driver' },
] as const satisfies readonly StepField[];
const driverCautions = (f: StepFacts) =>
  f.chain.settings.driverKind === 'repackaged' || f.has('software/repackaged')
    ? (['repackaged'] as const)
    : [];

/** What is seen to before anything is touched. */
export const BEFORE: readonly StepDef[] = [
  {
    id: 'save-work',
    lists: ['bring-up', 'dock-again'],
    phase: 'before',
    when: () => true,
    after: [],
    minutes: 2,
    symptoms: [],
  },
  {
    id: 'recovery-key',
    lists: UP,
    phase: 'before',
    when: (f) => f.chain.settings.encryption !== 'no',
    after: ['save-work'],
    minutes: 5,
    cautions: ['locked-out'],
    fields: [
      { kind: 'setting', key: 'encryption' },
      { kind: 'setting', key: 'recoveryKey' },
    ],
    about: ['host'],
    symptoms: ['recovery-key-asked'],
  },
  {
    id: 'read-versions',
    lists: UP,
    phase: 'before',
    when: () => true,
    after: ['save-work'],
    minutes: 5,
    fields: (f) =>
      SOFTWARE_ROLES.filter((r) => f.kind === 'tunnel' || !OF_TUNNEL.includes(r)).map(version),
    symptoms: [],
  },
  {
    id: 'network',
    lists: UP,
    phase: 'before',
    when: (f) => f.has('route/network') || f.port?.connector === 'mini-card',
    after: ['read-versions'],
    minutes: 10,
    tools: ['stick'],
    symptoms: [],
  },
  {
    id: 'dock-firmware',
    lists: UP,
    phase: 'before',
    when: (f) => f.chain.dock !== null && firmwareAsked(f, 'dockFirmware'),
    after: [...BEFORE_PLUG, 'read-versions', 'charger', 'link-software'],
    minutes: 20,
    tools: ['charger'],
    cautions: ['flash'],
    fields: [version('dockFirmware')],
    about: ['dock'],
    lasting: true,
    final: true,
    symptoms: ['update-stuck', 'crash-on-plug'],
  },
  {
    id: 'host-firmware',
    lists: UP,
    phase: 'before',
    when: (f) => firmwareAsked(f, 'hostFirmware') || firmwareAsked(f, 'linkFirmware'),
    after: [...BEFORE_PLUG, 'read-versions', 'charger'],
    minutes: 20,
    tools: ['charger'],
    cautions: ['flash'],
    fields: [version('hostFirmware'), version('linkFirmware')],
    about: ['host'],
    lasting: true,
    final: true,
    symptoms: ['update-stuck', 'recovery-key-asked', 'host-dead'],
  },
  {
    id: 'link-software',
    lists: UP,
    phase: 'before',
    when: hasLinkSoftware,
    after: ['read-versions'],
    minutes: 10,
    fields: [version('linkSoftware')],
    about: ['host'],
    lasting: true,
    symptoms: ['nothing-listed'],
  },
  {
    id: 'driver-before',
    lists: UP,
    phase: 'before',
    when: (f) => f.driver === 'before',
    after: ['read-versions', 'link-software', 'host-firmware', 'network'],
    minutes: 15,
    cautions: driverCautions,
    fields: driverFields,
    about: ['card', 'system'],
    lasting: true,
    symptoms: ['error-no-driver'],
  },
  {
    id: 'other-drive',
    lists: UP,
    phase: 'before',
    when: (f) =>
      f.inside &&
      f.port?.connector === 'm2' &&
      f.port.holds !== 'nothing' &&
      f.port.holds !== 'drive',
    after: ['save-work', 'recovery-key'],
    minutes: 45,
    cautions: ['locked-out'],
    about: ['host'],
    lasting: true,
    symptoms: ['host-dead', 'recovery-key-asked'],
  },
  {
    id: 'way-back',
    lists: UP,
    phase: 'before',
    when: (f) => f.chain.settings.internalGraphics === 'off' && f.chain.host?.graphics !== 'none',
    after: ['save-work'],
    minutes: 15,
    tools: ['second-machine'],
    cautions: ['no-screen'],
    fields: [{ kind: 'setting', key: 'wayBack' }],
    about: ['host'],
    lasting: true,
    symptoms: [],
  },
  {
    id: 'charger',
    lists: UP,
    phase: 'before',
    when: (f) =>
      f.chain.host?.form !== 'desktop' &&
      f.chain.host?.form !== 'mini-pc' &&
      (f.kind === 'direct' ||
        f.has('charging/none') ||
        f.has('charging/drains') ||
        f.has('charging/refused') ||
        firmwareAsked(f, 'dockFirmware') ||
        firmwareAsked(f, 'hostFirmware')),
    after: ['save-work'],
    minutes: 1,
    tools: ['charger'],
    fields: [{ kind: 'setting', key: 'ownCharger' }],
    symptoms: [],
  },
  {
    id: 'print',
    lists: ['bring-up', 'dock-again'],
    phase: 'before',
    when: () => true,
    after: ['save-work'],
    minutes: 2,
    tools: ['printer'],
    symptoms: [],
  },
];

/** The driver when it comes after the first plug. */
export const DRIVER_AFTER: StepDef = {
  id: 'driver-after',
  lists: UP,
  phase: 'check',
  when: (f) => f.driver === 'after',
  after: ['listed'],
  minutes: 15,
  cautions: driverCautions,
  fields: driverFields,
  about: ['card', 'system'],
  lasting: true,
  blanks: true,
  symptoms: ['error-no-driver', 'no-picture'],
};
