import type { SymptomId, TestId } from '../../base';
import type { TestDef } from './types';

/** What runs show: frames, hitches, the wrong card. */
const FRAMES: readonly SymptomId[] = [
  'flat-frames',
  'load-without-watts',
  'poor-lows',
  'bigger-slower',
  'slower-than-inside',
  'regular-hitch',
  'textures-collapse',
  'slow-on-panel',
];

/** Tests of runs, titles, screen and system. Minutes and shares are judgement, no published source; the log moves the shares. */
export const RUN_TESTS = {
  'screen-on-card': {
    ...{ cures: true, minutes: 3, risk: 0, on: 'all', q: 0.04 },
    after: [...FRAMES, 'no-picture', 'desktop-stutter', 'title-refuses', 'wrong-card'],
    given: { 'panel-return': 0.95, 'screen-input': 0.7, 'both-graphics': 0.1 },
  },
  'other-output': {
    ...{ cures: true, minutes: 4, risk: 0, on: 'all', q: 0.03 },
    after: ['no-picture', 'wrong-card', 'title-refuses', 'not-back'],
    given: { 'screen-input': 0.9, 'card-defective': 0.1 },
  },
  resolutions: {
    ...{ needsCard: true, minutes: 8, risk: 0, on: 'all', q: 0.05, same: 'flat-frames' },
    given: {
      ...{ capped: 0.9, processor: 0.85, 'power-mode': 0.7, 'driver-clamp': 0.6, 'two-lanes': 0.5, 'cable-class': 0.5 },
      ...{ 'own-cap': 0.5, title: 0.5, 'shared-link': 0.3, 'memory-window': 0.3, 'both-graphics': 0.2, 'panel-return': 0.3 },
    },
  },
  presets: {
    ...{ minutes: 6, risk: 0, on: 'all', q: 0.05 },
    after: FRAMES,
    given: {
      ...{ capped: 0.9, processor: 0.85, 'power-mode': 0.7, title: 0.6, 'driver-clamp': 0.4, 'two-lanes': 0.3 },
      ...{ 'cable-class': 0.3, 'own-cap': 0.3 },
    },
  },
  'host-power-up': {
    ...{ cures: true, minutes: 4, risk: 0, on: 'all', q: 0.04, cautions: ['hot'] },
    after: [...FRAMES, 'handheld-hot'],
    given: { 'power-mode': 0.9, processor: 0.5 },
  },
  'host-limits': {
    ...{ minutes: 4, risk: 0, on: 'all', q: 0.1 },
    after: [...FRAMES, 'handheld-hot', 'desktop-stutter', 'battery-falls'],
    given: { 'power-mode': 0.95, processor: 0.3, heat: 0.3 },
  },
  'one-core': {
    ...{ minutes: 3, risk: 0, on: 'all', q: 0.15 },
    after: [...FRAMES, 'desktop-stutter'],
    given: { processor: 0.9, 'power-mode': 0.5, capture: 0.4, title: 0.3, 'both-graphics': 0.2, capped: 0.05 },
  },
  'cap-off': { cures: true, minutes: 2, risk: 0, on: 'all', q: 0.03, after: FRAMES, given: { capped: 0.97 } },
  'lid-open': {
    ...{ cures: true, minutes: 5, risk: 1, on: 'lid', q: 0.04, cautions: ['hot'] },
    after: ['handheld-hot', 'memory-clock-half', 'freeze-under-load', 'drops-under-load'],
    given: { heat: 0.75 },
  },
  'force-card': {
    ...{ cures: true, minutes: 4, risk: 0, on: 'inside', q: 0.03 },
    after: ['wrong-card', 'slower-than-inside', 'title-refuses', 'bigger-slower', 'load-without-watts', 'desktop-stutter'],
    given: { 'wrong-device': 0.9, 'both-graphics': 0.4 },
  },
  'other-title': {
    ...{ cures: true, minutes: 8, risk: 0, on: 'all', q: 0.1 },
    after: [...FRAMES, 'title-refuses', 'small-window', 'wrong-card'],
    given: { title: 0.92, 'card-memory': 0.6, capped: 0.7, 'wrong-device': 0.4, 'other-screen': 0.6 },
  },
  'textures-down': {
    ...{ cures: true, minutes: 4, risk: 0, on: 'all', q: 0.04 },
    after: FRAMES,
    given: { 'card-memory': 0.95, 'memory-window': 0.2, title: 0.1 },
  },
  'no-saving': {
    ...{ cures: true, minutes: 4, risk: 0, on: 'all', q: 0.03 },
    after: [
      'seen-then-lost',
      'not-back',
      'memory-clock-half',
      'regular-hitch',
      'router-no-card',
      'freeze-under-load',
      'low-copy',
      'narrow-slow',
    ],
    given: { 'power-saving': 0.9, 'power-state': 0.3 },
  },
  'capture-off': {
    ...{ cures: true, minutes: 4, risk: 0, on: 'all', q: 0.04 },
    after: [...FRAMES, 'desktop-stutter'],
    given: { capture: 0.95 },
  },
  'key-when': {
    minutes: 3,
    risk: 0,
    on: 'all',
    q: 0.02,
    after: ['recovery-key-asked', 'no-picture', 'host-dead'],
    given: { encryption: 0.95 },
  },
  'profile-reset': {
    ...{ cures: true, minutes: 3, risk: 0, on: 'all', q: 0.02 },
    after: ['small-window', 'title-refuses', 'desktop-stutter', 'not-back'],
    given: { 'other-screen': 0.95 },
  },
  'versions-changed': {
    ...{ minutes: 3, risk: 0, on: 'all', q: 0.15, same: 'worked-before' },
    given: { update: 0.95, 'driver-range': 0.4, 'left-over-driver': 0.4, unsupported: 0.3 },
  },
  'opened-plugs': {
    ...{ minutes: 10, risk: 1, on: 'opened', q: 0.03, cautions: ['battery', 'lid-fan', 'static'] },
    after: ['host-dead', 'handheld-hot', 'battery-falls'],
    given: { ribbon: 0.9 },
  },
  'start-order': {
    minutes: 3,
    risk: 0,
    on: 'opened',
    q: 0.03,
    after: ['host-dead', 'recovery-key-asked'],
    given: { 'boot-drive': 0.95 },
  },
} as const satisfies Partial<Record<TestId, TestDef>>;
