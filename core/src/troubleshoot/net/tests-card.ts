import type { TestId } from '../../base';
import type { TestDef } from './types';

/** Tests of card, slot, power and driver. Minutes and shares are judgement, no published source; counts of the log move the shares. */
export const CARD_TESTS = {
  'other-card': {
    ...{ cures: true, minutes: 15, risk: 1, on: 'slot', q: 0.05, cautions: ['mains', 'static'] },
    given: {
      ...{ 'card-defective': 0.95, 'power-state': 0.7, 'driver-range': 0.6, 'card-seat': 0.6, supply: 0.5, 'power-cables': 0.4 },
      ...{ resources: 0.3, 'card-memory': 0.3, 'memory-window': 0.3, 'driver-clamp': 0.2, 'too-big': 0.6 },
    },
  },
  'desktop-slot': {
    ...{ minutes: 30, risk: 1, on: 'slot', q: 0.03, cautions: ['mains', 'static'] },
    given: { 'card-defective': 0.95, 'power-state': 0.3 },
  },
  reseat: {
    ...{ cures: true, minutes: 6, risk: 1, on: 'slot', q: 0.03, cautions: ['mains', 'static', 'heavy'] },
    given: { 'card-seat': 0.85, 'power-cables': 0.15, 'too-big': 0.1 },
  },
  'plugs-home': {
    ...{ cures: true, minutes: 5, risk: 1, on: 'plugs', q: 0.03, cautions: ['mains', 'plug-home', 'two-supplies'] },
    given: { 'power-cables': 0.9, supply: 0.15 },
  },
  'lower-power': {
    ...{ cures: true, minutes: 4, risk: 0, on: 'all', q: 0.04 },
    after: ['drops-under-load', 'freeze-under-load', 'seen-then-lost', 'textures-collapse'],
    given: { supply: 0.85, 'power-cables': 0.5, heat: 0.5, 'card-defective': 0.2, 'direct-cable': 0.1 },
  },
  'copy-rate': {
    ...{ needsCard: true, minutes: 3, risk: 0, on: 'all', q: 0.03, same: 'low-copy' },
    given: {
      ...{ 'two-lanes': 0.95, 'driver-clamp': 0.95, 'cable-class': 0.9, 'direct-cable': 0.75, 'shared-link': 0.65 },
      ...{ 'dock-firmware': 0.45, 'host-firmware': 0.4, 'plug-not-home': 0.35, 'card-seat': 0.4, 'cable-charges': 0.2 },
      ...{ 'memory-window': 0.15, 'own-cap': 0.3 },
    },
  },
  'span-loaded': {
    ...{ needsCard: true, minutes: 3, risk: 0, on: 'all', q: 0.02, same: 'narrow-slow' },
    given: { 'driver-clamp': 0.95, 'two-lanes': 0.85, 'direct-cable': 0.7, 'card-seat': 0.5, 'power-saving': 0.1 },
  },
  'read-again': {
    ...{ needsCard: true, minutes: 2, risk: 0, on: 'all', q: 0.02 },
    after: ['narrow-slow', 'low-copy', 'router-slow', 'memory-clock-half'],
    given: { 'idle-reading': 0.95, 'power-saving': 0.2, 'power-state': 0.1 },
  },
  'count-errors': {
    ...{ needsCard: true, minutes: 6, risk: 0, on: 'all', q: 0.03, same: 'errors-rise' },
    given: { 'direct-cable': 0.85, 'plug-not-home': 0.35, 'card-seat': 0.4, 'dock-defective': 0.2, 'card-defective': 0.15 },
  },
  clocks: {
    ...{ needsCard: true, minutes: 3, risk: 0, on: 'all', q: 0.04, same: 'memory-clock-half' },
    given: { 'power-state': 0.95, heat: 0.4, capped: 0.3, 'left-over-driver': 0.15, 'power-cables': 0.1 },
  },
  'ten-minutes': {
    ...{ needsCard: true, minutes: 11, risk: 0, on: 'all', q: 0.04, same: 'handheld-hot' },
    given: { heat: 0.95, 'power-mode': 0.25 },
  },
  'window-size': { needsCard: true, minutes: 2, risk: 0, on: 'all', q: 0.25, given: { 'memory-window': 0.95, resources: 0.4 } },
  'no-space': { minutes: 3, risk: 0, on: 'all', q: 0.03, given: { resources: 0.95, 'memory-window': 0.2 } },
  'device-state': {
    ...{ minutes: 1, risk: 0, on: 'all', q: 0.03, same: 'error-no-driver' },
    after: ['no-picture', 'wrong-card', 'title-refuses', 'worked-before'],
    given: { 'driver-range': 0.85, 'mobile-chip': 0.9, 'left-over-driver': 0.4, resources: 0.9, unsupported: 0.5, update: 0.3 },
  },
  'clean-driver': {
    ...{ cures: true, minutes: 25, risk: 1, on: 'all', q: 0.05, cautions: ['no-screen'] },
    given: { 'left-over-driver': 0.9, 'driver-range': 0.75, update: 0.5, 'power-state': 0.3 },
  },
  'driver-version': {
    ...{ minutes: 3, risk: 0, on: 'all', q: 0.05 },
    given: { 'driver-range': 0.95, 'mobile-chip': 0.5, update: 0.3 },
  },
  'override-rate': {
    ...{ needsCard: true, cures: true, minutes: 5, risk: 1, on: 'tunnel', q: 0.01, cautions: ['no-screen'] },
    after: ['narrow-slow', 'low-copy', 'flat-frames', 'load-without-watts', 'bigger-slower', 'slower-than-inside'],
    given: { 'driver-clamp': 0.95 },
  },
  'near-class': {
    ...{ needsCard: true, minutes: 1, risk: 0, on: 'all', q: 0.1 },
    after: ['low-copy', 'flat-frames', 'load-without-watts', 'poor-lows', 'bigger-slower', 'narrow-slow'],
    given: {
      ...{ 'own-cap': 0.95, processor: 0.7, title: 0.7, capped: 0.7, 'card-memory': 0.6, 'power-mode': 0.6 },
      ...{ capture: 0.5, 'power-state': 0.5, 'panel-return': 0.4, 'two-lanes': 0.03, 'cable-class': 0.03, 'driver-clamp': 0.02 },
    },
  },
  'slot-empty': {
    ...{ minutes: 2, risk: 0, on: 'slot', q: 0.3 },
    after: ['nothing-listed', 'router-no-card'],
    given: {
      ...{ 'card-seat': 0.95, 'too-big': 0.9, 'power-cables': 0.06, 'card-defective': 0.15, resources: 0.05, 'direct-live': 0.2 },
      ...{ 'dock-off': 0.6, 'plug-not-home': 0.6 },
    },
  },
  'lamp-out': {
    ...{ minutes: 5, risk: 0, on: 'dock', q: 0.02 },
    after: ['drops-under-load', 'seen-then-lost', 'freeze-under-load'],
    given: { supply: 0.92, 'dock-defective': 0.3, 'dock-off': 0.4, 'power-cables': 0.1 },
  },
  'asleep-at-rest': {
    ...{ minutes: 2, risk: 0, on: 'all', q: 0.02 },
    after: ['seen-then-lost', 'not-back', 'router-no-card', 'nothing-listed', 'narrow-slow', 'low-copy'],
    given: { 'power-saving': 0.9, 'power-state': 0.1 },
  },
  'no-output': {
    ...{ minutes: 1, risk: 0, on: 'all', q: 0.05 },
    after: ['no-picture', 'wrong-card', 'not-back', 'title-refuses'],
    given: { 'screen-input': 0.8, 'panel-return': 0.3, 'power-cables': 0.2, 'card-defective': 0.2 },
  },
  'measure-fit': {
    ...{ minutes: 4, risk: 1, on: 'slot', q: 0.03, cautions: ['mains'] },
    after: ['does-not-fit', 'nothing-listed', 'router-no-card'],
    given: { 'too-big': 0.95, 'card-seat': 0.1 },
  },
} as const satisfies Partial<Record<TestId, TestDef>>;
