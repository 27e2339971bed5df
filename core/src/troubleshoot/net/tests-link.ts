import type { TestId } from '../../base';
import type { TestDef } from './types';

/** Tests of port, cable, link and dock. Minutes and shares are judgement, no published source; counts of the log move the shares. */
export const LINK_TESTS = {
  'port-mark': { minutes: 3, risk: 0, on: 'usbc', q: 0.08, given: { 'look-alike-port': 0.95 } },
  'router-listed': {
    ...{ minutes: 1, risk: 0, on: 'tunnel', q: 0.02, same: 'nothing-listed' },
    given: {
      ...{ 'look-alike-port': 0.97, 'no-compatibility': 0.9, 'cable-charges': 0.9, 'dock-off': 0.75, 'link-software': 0.5 },
      ...{ 'dock-defective': 0.6, order: 0.4, 'plug-not-home': 0.45, 'host-firmware': 0.1, 'flash-broken': 0.6 },
    },
  },
  approved: { minutes: 1, risk: 0, on: 'tunnel', q: 0.03, given: { 'not-approved': 0.9, 'no-tunnelling': 0.5 } },
  security: { minutes: 3, risk: 0, on: 'tunnel', q: 0.02, given: { 'no-tunnelling': 0.95 } },
  'router-speed': {
    ...{ minutes: 1, risk: 0, on: 'tunnel', q: 0.02, same: 'router-slow' },
    given: {
      ...{ 'cable-class': 0.95, 'plug-not-home': 0.3, 'cable-charges': 0.15, 'dock-defective': 0.1 },
      ...{ 'host-firmware': 0.1, 'dock-firmware': 0.08 },
    },
  },
  'short-cable': {
    ...{ cures: true, minutes: 5, risk: 0, on: 'usbc', q: 0.03 },
    given: { 'cable-charges': 0.95, 'cable-class': 0.95, 'plug-not-home': 0.7 },
  },
  'other-port': {
    ...{ cures: true, minutes: 3, risk: 0, on: 'ports', q: 0.03, cautions: ['direct-off'] },
    given: { 'look-alike-port': 0.9, 'plug-not-home': 0.3, 'two-lanes': 0.2, resources: 0.15, 'power-saving': 0.1 },
  },
  'all-off': {
    ...{ cures: true, minutes: 6, risk: 0, on: 'all', q: 0.04 },
    given: {
      ...{ 'direct-live': 0.95, 'dock-off': 0.5, 'power-saving': 0.4, order: 0.35, 'dock-firmware': 0.3 },
      ...{ 'not-approved': 0.1, 'left-over-driver': 0.1 },
    },
  },
  'plug-later': {
    ...{ cures: true, minutes: 4, risk: 1, on: 'surely-tunnel', q: 0.03, cautions: ['unplug-live'] },
    after: ['nothing-listed', 'router-no-card', 'not-at-start', 'crash-on-plug', 'no-picture', 'not-back'],
    given: { order: 0.85, 'dock-firmware': 0.1, 'dock-off': 0.1 },
  },
  'dock-dark': {
    ...{ minutes: 1, risk: 0, on: 'dock', q: 0.03, same: 'no-lamp' },
    given: { 'dock-off': 0.85, 'dock-defective': 0.4, 'power-cables': 0.15, supply: 0.15, 'flash-broken': 0.2 },
  },
  'other-host': {
    ...{ minutes: 15, risk: 0, on: 'dock', q: 0.08, cautions: ['direct-off'] },
    given: {
      ...{ 'dock-defective': 0.95, 'card-defective': 0.95, 'cable-charges': 0.9, 'cable-class': 0.9, 'dock-firmware': 0.8 },
      ...{ 'power-cables': 0.9, 'card-seat': 0.9, 'own-cap': 0.9, supply: 0.85, 'plug-not-home': 0.7, 'direct-cable': 0.8 },
      ...{ heat: 0.7, 'flash-broken': 0.95, 'shared-link': 0.8, 'dock-off': 0.6, 'too-big': 0.95 },
    },
  },
  'dock-version': { minutes: 3, risk: 0, on: 'tunnel', q: 0.15, given: { 'dock-firmware': 0.95, 'flash-broken': 0.5 } },
  'host-version': { minutes: 4, risk: 0, on: 'all', q: 0.2, given: { 'host-firmware': 0.95 } },
  'hub-off': {
    ...{ cures: true, minutes: 2, risk: 0, on: 'hub', q: 0.03 },
    after: ['low-copy', 'flat-frames', 'load-without-watts', 'regular-hitch', 'poor-lows', 'desktop-stutter'],
    given: { 'shared-link': 0.95 },
  },
  'plug-seen': {
    ...{ cures: true, minutes: 3, risk: 1, on: 'all', q: 0.04, cautions: ['direct-off', 'plug-home'] },
    given: { 'plug-not-home': 0.85 },
  },
  'approve-anew': {
    ...{ cures: true, minutes: 2, risk: 0, on: 'tunnel', q: 0.03 },
    after: ['nothing-listed', 'router-no-card', 'seen-then-lost', 'not-at-start', 'worked-before', 'not-back'],
    given: { 'not-approved': 0.95 },
  },
  'link-software': { minutes: 2, risk: 0, on: 'tunnel', q: 0.05, given: { 'link-software': 0.95 } },
  compatibility: { minutes: 4, risk: 0, on: 'compatibility', q: 0.05, given: { 'no-compatibility': 0.95 } },
  'two-lane-span': { minutes: 2, risk: 0, on: 'separate', q: 0.02, given: { 'two-lanes': 0.95 } },
  contract: {
    ...{ minutes: 3, risk: 0, on: 'battery', q: 0.05 },
    after: ['battery-falls', 'handheld-hot', 'nothing-listed', 'freeze-under-load'],
    given: { 'charge-contract': 0.97, 'cable-charges': 0.2, supply: 0.1 },
  },
  'short-direct': {
    ...{ cures: true, minutes: 8, risk: 1, on: 'direct', q: 0.03, cautions: ['direct-off'] },
    given: { 'direct-cable': 0.9, 'plug-not-home': 0.4, 'card-seat': 0.15 },
  },
  'bare-dock': {
    ...{ cures: true, minutes: 6, risk: 1, on: 'dock', q: 0.04, cautions: ['mains', 'static'] },
    after: ['no-lamp', 'nothing-listed', 'crash-on-plug', 'update-stuck'],
    given: { 'dock-defective': 0.75, 'flash-broken': 0.9, 'dock-off': 0.5 },
  },
  'update-tool': {
    ...{ minutes: 3, risk: 0, on: 'dock', q: 0.04 },
    after: ['update-stuck', 'no-lamp', 'nothing-listed'],
    given: { 'flash-broken': 0.9, 'dock-defective': 0.2 },
  },
  'plug-partner': {
    ...{ minutes: 1, risk: 0, on: 'usbc', q: 0.03 },
    after: ['nothing-listed', 'not-at-start', 'no-lamp', 'not-back'],
    given: { 'plug-not-home': 0.75, 'dock-off': 0.6, 'dock-defective': 0.7, 'flash-broken': 0.2, 'cable-charges': 0.05 },
  },
  bridges: {
    ...{ minutes: 1, risk: 0, on: 'tunnel', q: 0.03 },
    after: ['nothing-listed', 'router-no-card', 'not-at-start', 'worked-before', 'not-back'],
    given: {
      ...{ 'no-tunnelling': 0.97, 'not-approved': 0.95, 'look-alike-port': 0.97, 'cable-charges': 0.95, 'dock-off': 0.9 },
      ...{ 'no-compatibility': 0.95, 'link-software': 0.7, 'dock-defective': 0.7, order: 0.7, 'plug-not-home': 0.6 },
      ...{ 'flash-broken': 0.7, unsupported: 0.3, 'dock-firmware': 0.2, 'host-firmware': 0.2 },
    },
  },
  'support-list': {
    minutes: 4,
    risk: 0,
    on: 'all',
    q: 0.03,
    given: { unsupported: 0.95, 'mobile-chip': 0.3, 'driver-range': 0.2 },
  },
} as const satisfies Partial<Record<TestId, TestDef>>;
