import type { Act } from '@ruddy/core/bench';
import { carriesTunnel } from '@ruddy/core/parts';
import { bind, linkDown, freeze, goOn, linkUp, use } from './link-up';
import {
  bridgesUp,
  draw,
  dockLives,
  fault,
  later,
  reset,
  say,
  enterState,
  currentTopology,
  type SimulatedBench,
} from './simulated-bench';

type Of<A extends Act['act']> = Extract<Act, { act: A }>;
type Actions = { readonly [A in Act['act']]: (w: SimulatedBench, act: Of<A>) => void };

/** Does the cable lead to direct PCIe? */
function isDirect(w: SimulatedBench, socket: string | null): boolean {
  const port = w.chain.host?.sockets.find((s) => s.key === socket);
  return port !== undefined && !carriesTunnel(port.connector);
}

function loosen(w: SimulatedBench): void {
  if (w.plugged === null) return;
  w.plugged = null;
  if (w.approval === 'once') w.approval = 'none';
  reset(w, 'unplugged');
}

/** Another part takes a place: what was joined there comes apart. */
function placed(w: SimulatedBench, what: string, gone: boolean): void {
  loosen(w);
  w.load = false;
  say(w, gone ? 'taken-away' : 'placed', { what });
}

function plug(w: SimulatedBench, { socket }: Of<'plug'>): void {
  if (w.plugged !== null || !w.chain.host?.sockets.some((s) => s.key === socket)) return;
  w.plugged = socket;
  w.missed = false;
  w.hot = w.host === 'on';
  const k = currentTopology(w);
  if (!k || k.barrier === 'misfit') {
    w.plugged = null;
    say(w, k ? 'plug-misfit' : 'plug-nothing', { socket });
    return;
  }
  say(w, 'plugged', { socket });
  if (k.barrier === 'no-contact') say(w, 'no-contact');
  if (isDirect(w, socket) && (w.host !== 'off' || dockLives(w))) {
    say(w, 'live-direct');
    if (w.host !== 'off') {
      w.missed = true;
      if (draw(w, 'live', 0, 1) < 0.5) {
        freeze(w);
        return;
      }
    }
  }
  linkUp(w);
}

function unplug(w: SimulatedBench): void {
  if (w.plugged === null) return;
  const live = isDirect(w, w.plugged) && w.host !== 'off' && w.host !== 'frozen' && dockLives(w);
  if (w.stage !== 'unplugged' && w.stage !== 'attached') linkDown(w);
  loosen(w);
  say(w, 'unplugged');
  if (live) {
    say(w, 'live-direct');
    freeze(w);
  }
}

function hostTo(w: SimulatedBench, { to }: Of<'host'>): void {
  if (to === 'on' && w.host === 'off') {
    w.host = 'starting';
    w.missed = false;
    w.epochs.host++;
    say(w, 'host-starting');
    if (fault(w, 'asks-for-key') > 0) later(w, 'key', 3000, 5000, 'host');
    else later(w, 'host-up', 9000, 15_000, 'host');
  } else if (to === 'off' && w.host !== 'off') {
    w.host = 'off';
    w.epochs.host++;
    w.load = false;
    if (w.approval === 'once') w.approval = 'none';
    if (w.stage !== 'unplugged') reset(w, 'attached');
    say(w, 'host-off');
  } else if (to === 'asleep' && w.host === 'on') {
    w.host = 'asleep';
    w.load = false;
    say(w, 'host-asleep');
    if (w.stage === 'bound' || w.stage === 'in-use') reset(w, 'suspended');
    else if (w.stage !== 'unplugged') reset(w, 'attached');
  } else if (to === 'awake' && w.host === 'asleep') wake(w);
}

function wake(w: SimulatedBench): void {
  w.host = 'on';
  say(w, 'host-awake');
  if (w.stage !== 'suspended') linkUp(w);
  else if (fault(w, 'power-saving') > 0) {
    say(w, 'stays-asleep');
    w.missed = true;
    linkDown(w);
  } else {
    // Bridges and router were kept; only the slot trains again.
    later(w, 'train', 300, 900);
  }
}

/** The host has started: what is plugged and alive is found now. */
export function hostUp(w: SimulatedBench): void {
  w.host = 'on';
  w.hot = false;
  say(w, 'host-on');
  if (w.plugged === null) return;
  if (isDirect(w, w.plugged) && !dockLives(w)) w.missed = true;
  if (fault(w, 'host-order') > 0 && dockLives(w)) {
    w.missed = true;
    say(w, 'not-at-start');
  }
  linkUp(w);
}

/** The dock's power changed: by its switch or by the mains. */
function powered(w: SimulatedBench, before: boolean): void {
  const now = dockLives(w);
  if (now === before) return;
  w.epochs.supply++;
  if (now) w.hot = w.host === 'on';
  // A host that would not look at start looks again when the dock comes anew.
  if (now && w.host === 'on' && !isDirect(w, w.plugged)) w.missed = false;
  if (now && w.host !== 'off' && isDirect(w, w.plugged)) w.missed = true;
  linkUp(w);
}

function cardTo(w: SimulatedBench, act: Of<'card'>): void {
  if (w.cardIn === act.in || (act.in && w.chain.card === null)) return;
  const live = dockLives(w);
  w.cardIn = act.in;
  say(w, act.in ? 'seated' : 'unseated');
  if (!live) return;
  say(w, 'live-card');
  if (isDirect(w, w.plugged) && w.host === 'on') freeze(w);
  else if (act.in && w.stage === 'tunnel') later(w, 'train', 100, 300);
  else if (w.stage !== 'unplugged' && w.stage !== 'attached') {
    linkDown(w);
    linkUp(w);
  }
}

const barrierOf = (w: SimulatedBench) => currentTopology(w)?.barrier ?? null;

/** What each act does. An act that changes nothing says nothing. */
export const ACTIONS: Actions = {
  'place-host': (w, { spec }) => {
    w.host = 'off';
    w.epochs.host++;
    w.chain = { ...w.chain, host: spec, socket: null };
    placed(w, 'host', spec === null);
  },
  'place-path': (w, { spec }) => {
    const path = spec.map((s, i) => ({ key: 'abcdef'.charAt(i), spec: s }));
    w.chain = { ...w.chain, path };
    placed(w, 'cable', spec.length === 0);
  },
  'place-dock': (w, { spec }) => {
    w.dockOn = false;
    w.chain = { ...w.chain, dock: spec };
    placed(w, 'dock', spec === null);
  },
  'place-card': (w, { spec }) => {
    if (w.cardIn && dockLives(w)) say(w, 'live-card');
    w.cardIn = false;
    w.chain = { ...w.chain, card: spec };
    placed(w, 'card', spec === null);
  },
  'place-supply': (w, { spec }) => {
    w.mains = false;
    w.chain = { ...w.chain, supplies: spec ? [{ key: 'a', feeds: 'both', spec }] : [] };
    placed(w, 'supply', spec === null);
  },
  plug,
  unplug,
  card: cardTo,
  'power-plugs': (w, act) => {
    if (w.plugsIn === act.in) return;
    w.plugsIn = act.in;
    say(w, act.in ? 'plugs-in' : 'plugs-out');
    if (!act.in && dockLives(w)) linkDown(w);
    if (act.in && w.stage === 'tunnel') later(w, 'train', 100, 300);
  },
  mains: (w, { on }) => {
    if (w.mains === on) return;
    const before = dockLives(w);
    w.mains = on;
    w.brownOut = false;
    say(w, on ? 'mains-on' : 'mains-off');
    powered(w, before);
  },
  dock: (w, { on }) => {
    if (w.dockOn === on) return;
    const before = dockLives(w);
    w.dockOn = on;
    say(w, on ? 'dock-on' : 'dock-off');
    if (on && !dockLives(w)) say(w, 'dock-dark');
    powered(w, before);
  },
  host: hostTo,
  key: (w) => {
    if (w.host !== 'asks-key') return;
    w.host = 'starting';
    later(w, 'host-up', 6000, 10_000, 'host');
  },
  approve: (w, { how }) => {
    if (fault(w, 'approval-kept-out') > 0 && how !== 'none') {
      say(w, 'approval-kept-out');
      return;
    }
    if (w.approval === how) return;
    w.approval = how;
    say(w, how === 'none' ? 'approval-back' : 'approved', { how });
    const tunnel = currentTopology(w)?.kind === 'tunnel';
    if (
      how === 'none' &&
      tunnel &&
      bridgesUp(w) &&
      (w.security === 'user' || w.security === 'secure')
    ) {
      linkDown(w);
      linkUp(w);
    } else goOn(w);
  },
  security: (w, { level }) => {
    if (w.security === level) return;
    w.security = level;
    say(w, 'security', { level });
  },
  driver: (w, act) => {
    if (w.driverIn === act.in) return;
    w.driverIn = act.in;
    say(w, act.in ? 'driver-in' : 'driver-out');
    if (act.in) bind(w);
    else if (w.stage === 'bound' || w.stage === 'in-use') {
      w.load = false;
      enterState(w, 'windows');
    }
  },
  load: (w, { on }) => {
    if (w.load === on) return;
    w.load = on;
    say(w, on ? 'load-on' : 'load-off');
    if (on) use(w);
    else if (w.stage === 'in-use') {
      reset(w, 'bound');
      if (fault(w, 'power-saving') > 0) later(w, 'rest', 18_000, 22_000);
    }
  },
  traffic: (w, { on }) => {
    if (w.traffic === on) return;
    w.traffic = on;
    say(w, on ? 'traffic-on' : 'traffic-off');
  },
  screen: (w, act) => {
    if (w.screenIn === act.in) return;
    w.screenIn = act.in;
    say(w, act.in ? 'screen-in' : 'screen-out');
  },
  fault: (w, { id, strength }) => {
    const before = dockLives(w);
    const stood = barrierOf(w);
    const others = Object.fromEntries(
      Object.entries(w.faults).filter(([k]) => k !== id),
    ) as SimulatedBench['faults'];
    w.faults = strength > 0 ? { ...others, [id]: strength } : others;
    say(w, strength > 0 ? 'fault-set' : 'fault-mended', { fault: id });
    // Nothing goes on over a link that can no longer be: hidden while it runs, it is like another cable or port in its place.
    if (stood === null && barrierOf(w) !== null) {
      linkDown(w);
      linkUp(w);
    }
    powered(w, before);
  },
};
