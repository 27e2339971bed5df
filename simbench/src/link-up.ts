import { supplyOf } from './parts';
import {
  draw,
  dockLives,
  fault,
  forbidden,
  later,
  reset,
  say,
  slotFault,
  enterState,
  currentTopology,
  type Later,
  type SimulatedBench,
} from './simulated-bench';

/** The host stops dead; only its button helps. */
export function freeze(w: SimulatedBench): void {
  w.host = 'frozen';
  w.epochs.host++;
  say(w, 'host-frozen');
  if (w.plugged) reset(w, 'lost');
}

/** The link falls: what was reached is gone. It comes up again by itself only through a tunnel. */
export function linkDown(w: SimulatedBench): void {
  if (w.stage === 'unplugged' || w.stage === 'attached' || w.stage === 'lost') return;
  const reached = w.stage !== 'router' && w.stage !== 'awaiting';
  reset(w, 'lost');
  if (!reached) return;
  w.downs++;
  w.load = false;
  w.ghost = currentTopology(w)?.kind === 'direct';
  say(w, w.ghost ? 'gone' : 'link-down');
}

/** Something changed at cable, dock or host: begin what can begin now. */
export function linkUp(w: SimulatedBench): void {
  const k = currentTopology(w);
  if (w.plugged === null || !k) return;
  if (k.barrier === 'misfit' || k.barrier === 'no-contact') {
    reset(w, 'unplugged');
    return;
  }
  if (w.stage === 'unplugged') {
    enterState(w, 'attached');
    w.contact = w.ms;
    say(w, 'attached');
  }
  if (w.host !== 'on' || !dockLives(w)) {
    if (w.stage !== 'attached') linkDown(w);
    return;
  }
  if (w.stage === 'attached' || w.stage === 'lost') {
    // A direct link is looked for once, by the firmware, while everything is on.
    if (k.kind === 'direct') {
      if (w.missed) say(w, 'not-scanned');
      else later(w, 'train', 100, 300);
    } else if (!w.missed) later(w, 'router', 400, 1200);
  }
}

function router(w: SimulatedBench): void {
  const k = currentTopology(w);
  if (!k) return;
  if (k.barrier !== null || fault(w, 'dock-defective') > 0) {
    say(w, 'no-router');
    return;
  }
  if (w.hot && draw(w, 'crash', 0, 1) < fault(w, 'dock-firmware-crash')) {
    freeze(w);
    return;
  }
  enterState(w, 'router');
  say(w, 'router-up', { lane: k.router?.laneGbps ?? 0, lanes: k.router?.lanes ?? 0 });
  later(w, 'approval', 200, 600);
  if (fault(w, 'plug-not-home') > 0) later(w, 'loose', 60_000, 240_000);
}

function approval(w: SimulatedBench): void {
  if (forbidden(w)) {
    say(w, 'tunnel-forbidden');
    return;
  }
  const approved = w.approval !== 'none' && fault(w, 'approval-kept-out') === 0;
  const asks = (w.security === 'user' || w.security === 'secure') && !approved;
  if (asks) {
    enterState(w, 'awaiting');
    say(w, 'awaiting');
  } else later(w, 'tunnel', 150, 500);
}

/** Approved while it waited: go on. */
export function goOn(w: SimulatedBench): void {
  if (w.stage === 'awaiting' && !forbidden(w)) later(w, 'tunnel', 150, 500);
}

function train(w: SimulatedBench): void {
  const why = slotFault(w);
  if (why) {
    say(w, why);
    return;
  }
  if (currentTopology(w)?.barrier === 'no-pcie') {
    say(w, 'slot-silent');
    return;
  }
  enterState(w, 'training');
  say(w, 'training');
  later(w, 'trained', 80, 240);
}

function trained(w: SimulatedBench): void {
  const k = currentTopology(w);
  if (!k) return;
  say(w, 'trained', { gen: k.slot.gen, lanes: k.slot.lanes });
  later(w, 'windows', 50, 200);
}

function windows(w: SimulatedBench): void {
  enterState(w, 'windows');
  if (fault(w, 'resource-window') > 0) {
    say(w, 'no-space');
    return;
  }
  say(w, 'windows');
  later(w, 'bind', 700, 2500);
}

/** A driver takes the card, when there is one and it wants to. */
export function bind(w: SimulatedBench): void {
  if (w.stage !== 'windows' || fault(w, 'resource-window') > 0) return;
  if (!w.driverIn) say(w, 'no-driver');
  else if (fault(w, 'driver-refused') > 0) say(w, 'driver-refused');
  else {
    enterState(w, 'bound');
    say(w, 'bound');
    if (w.screenIn && fault(w, 'wrong-input') > 0) say(w, 'no-picture');
    if (w.load) use(w);
    else if (fault(w, 'power-saving') > 0) later(w, 'rest', 18_000, 22_000);
  }
}

/** Work for the card: what only shows under load shows now. */
export function use(w: SimulatedBench): void {
  if (w.stage === 'suspended') {
    say(w, 'stays-asleep');
    linkDown(w);
    return;
  }
  if (w.stage !== 'bound') return;
  enterState(w, 'in-use');
  if (fault(w, 'driver-clamp') > 0) later(w, 'fall-back', 300, 900);
  if (fault(w, 'direct-cable-margin') > 0) later(w, 'errors', 2000, 9000);
  const sag = fault(w, 'supply-sag');
  if (sag > 0 || tooSmall(w)) later(w, 'sag', 40_000, 60_000 + 200_000 * (1 - (sag || 1)));
  const bad = fault(w, 'card-defective');
  if (bad > 0) later(w, 'drop', 60_000, 300_000);
}

/** Does the card draw more than the supply is rated for, with nothing else on it? */
function tooSmall(w: SimulatedBench): boolean {
  const { ratedW } = supplyOf(w.chain);
  const board = w.chain.card?.boardW ?? null;
  return ratedW !== null && typeof board === 'number' && board > ratedW;
}

function sag(w: SimulatedBench): void {
  w.brownOut = true;
  say(w, 'brown-out');
  linkDown(w);
  later(w, 'power-back', 1200, 2500, 'supply');
}

/** What happens by itself, each with what it does. */
export const HAPPENS: Readonly<
  Record<Exclude<Later, 'key' | 'host-up'>, (w: SimulatedBench) => void>
> = {
  router,
  approval,
  tunnel: (w) => {
    enterState(w, 'tunnel');
    say(w, 'tunnel-up');
    later(w, 'train', 100, 300);
  },
  train,
  trained,
  windows,
  bind,
  'fall-back': (w) => say(w, 'slot-fell-back'),
  errors: (w) => say(w, 'errors-rise'),
  sag,
  'power-back': (w) => {
    w.brownOut = false;
    say(w, 'link-back');
    if (currentTopology(w)?.kind === 'tunnel') linkUp(w);
  },
  drop: (w) => {
    say(w, 'gone');
    w.downs++;
    w.load = false;
    reset(w, 'lost');
    w.ghost = true;
    w.missed = true;
  },
  loose: (w) => {
    say(w, 'plug-loose');
    linkDown(w);
    later(w, 'loose-back', 1500, 3000);
  },
  'loose-back': (w) => linkUp(w),
  rest: (w) => {
    if (w.stage !== 'bound' || w.load) return;
    enterState(w, 'suspended');
    say(w, 'suspended');
  },
};
