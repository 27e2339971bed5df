import type {
  DriverSchool,
  HouseRules,
  OrderId,
  Phase,
  Purpose,
  RuleId,
  StepId,
  SymptomId,
} from '../../base';
import type { Chain, Slot } from '../../chain';
import type { SocketSpec, SoftwareRole, WordSetting } from '../../parts';
import type { Evaluation, FindingCode } from '../../plan';
import type { Docked } from '../../setups';
import type { StepTime } from './times';

/** What is noted at a step, beside that it is done. */
export type StepField =
  | { readonly kind: 'version'; readonly role: SoftwareRole }
  | { readonly kind: 'setting'; readonly key: WordSetting }
  | { readonly kind: 'reading'; readonly of: 'spans' | 'down' | 'up' | 'counts' }
  | { readonly kind: 'docked'; readonly panel: 'profiles' | 'programs' | 'buttons' }
  | { readonly kind: 'wrong' }
  | { readonly kind: 'outcome' };

export type Tool =
  | 'screwdriver'
  | 'plastic-pick'
  | 'tape'
  | 'printer'
  | 'stick'
  | 'second-machine'
  | 'charger'
  | 'small-bags'
  | 'torch';

/** Dangers that are said before the act. */
export type CautionId =
  | 'mains'
  | 'static'
  | 'battery'
  | 'lid-fan'
  | 'conducts'
  | 'cutting'
  | 'live-board'
  | 'plug-home'
  | 'two-supplies'
  | 'direct-off'
  | 'looks-like-video'
  | 'flash'
  | 'repackaged'
  | 'no-screen'
  | 'locked-out'
  | 'heavy'
  | 'hot'
  | 'unplug-live';

/** What decides which steps a chain has. */
export interface StepFacts {
  readonly chain: Chain;
  readonly evaluation: Evaluation;
  readonly kind: 'tunnel' | 'direct';
  readonly order: OrderId;
  readonly driver: DriverSchool;
  readonly docked: Docked;
  readonly port: SocketSpec | null;
  /** The port is a slot inside the host. */
  readonly inside: boolean;
  /** Is the cable taken out while the host runs? */
  readonly hotOut: boolean;
  readonly has: (code: FindingCode) => boolean;
  readonly rule: (id: RuleId) => number;
}

/** A step as data: when a chain has it, what must come before it, and what it is about. */
export interface StepDef {
  readonly id: StepId;
  readonly lists: readonly Purpose[];
  readonly phase: Phase;
  readonly when: (f: StepFacts) => boolean;
  /** Steps that come before it where they are in the list. */
  readonly after: readonly StepId[];
  readonly minutes: number | ((f: StepFacts) => number);
  readonly tools?: readonly Tool[];
  readonly cautions?: readonly CautionId[] | ((f: StepFacts) => readonly CautionId[]);
  readonly fields?: readonly StepField[] | ((f: StepFacts) => readonly StepField[]);
  /** What it is done to: the step is open again when another part stands there. */
  readonly about?: readonly Slot[];
  /** Done once it stands for later attempts, as long as the same parts stand there. */
  readonly lasting?: true;
  /** It cannot be undone. */
  readonly final?: true;
  /** The picture may go: the next steps are printed before. */
  readonly blanks?: true;
  /** What may be seen instead, likeliest first. */
  readonly symptoms: readonly SymptomId[];
}

/** A step of a list that was made for a chain. */
export interface Step {
  readonly id: StepId;
  readonly phase: Phase;
  readonly minutes: number;
  /** Attempts of this workshop that the minutes are told from; 0: usual ones. */
  readonly timedIn: number;
  readonly tools: readonly Tool[];
  readonly cautions: readonly CautionId[];
  readonly fields: readonly StepField[];
  readonly about: readonly Slot[];
  readonly lasting: boolean;
  readonly final: boolean;
  readonly blanks: boolean;
  readonly symptoms: readonly SymptomId[];
}

export interface ListInput {
  readonly chain: Chain;
  readonly evaluation: Evaluation;
  readonly house: HouseRules;
  readonly docked: Docked;
  readonly purpose: Purpose;
  readonly order: OrderId;
  readonly driver: DriverSchool;
  /** Steps that stay though their reason is gone, because something was already noted at them. */
  readonly keep?: ReadonlySet<StepId>;
  /** How long steps took in this workshop. */
  readonly times?: ReadonlyMap<StepId, StepTime>;
}
