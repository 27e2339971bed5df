import type { SymptomId } from '../../base';
import type { SymptomDef } from './types';

/** P(seen) for a cause that is not named: things happen beside what is wrong. */
export const BESIDE = 0.02;
/** P(seen) where none of the causes is behind it: it explains anything, and nothing well. */
export const NONE_SEEN = 0.08;

/**
 * P(seen given cause). Judgement, from memory of the trade, no published source; counts of the log move them. Who says that nothing is
 * listed has often not looked at the link's own list: causes behind a router without a card keep some weight there.
 */
export const SYMPTOMS: Readonly<Record<SymptomId, SymptomDef>> = {
  'crash-on-plug': {
    given: {
      ...{ 'dock-firmware': 0.4, order: 0.4, 'left-over-driver': 0.4, 'host-firmware': 0.2, resources: 0.15 },
      ...{ 'dock-defective': 0.15, unsupported: 0.1, 'plug-not-home': 0.1, 'card-defective': 0.1 },
    },
    direct: {
      ...{ 'direct-live': 0.5, 'left-over-driver': 0.3, 'host-firmware': 0.2, resources: 0.15 },
      ...{ 'plug-not-home': 0.15, 'dock-defective': 0.1, 'card-defective': 0.1 },
    },
  },
  'nothing-listed': {
    given: {
      ...{ 'look-alike-port': 0.9, 'cable-charges': 0.8, 'no-compatibility': 0.8, 'dock-off': 0.6, 'link-software': 0.5 },
      ...{ 'plug-not-home': 0.5, 'dock-defective': 0.5, order: 0.3, unsupported: 0.2, 'not-approved': 0.2 },
      ...{ 'no-tunnelling': 0.2, 'card-seat': 0.15, 'power-cables': 0.15, 'card-defective': 0.1, 'flash-broken': 0.5 },
    },
    direct: {
      ...{ 'direct-live': 0.7, 'dock-off': 0.6, 'card-seat': 0.6, 'power-cables': 0.6, 'card-defective': 0.6 },
      ...{ 'dock-defective': 0.4, 'direct-cable': 0.3, 'plug-not-home': 0.4, unsupported: 0.2, 'link-software': 0.02 },
    },
  },
  'router-no-card': {
    given: {
      ...{ 'no-tunnelling': 0.85, 'not-approved': 0.8, 'card-seat': 0.6, 'power-cables': 0.6, unsupported: 0.4 },
      ...{ 'card-defective': 0.6, resources: 0.3, 'dock-defective': 0.3, 'dock-firmware': 0.25, order: 0.2 },
      ...{ 'link-software': 0.2, 'power-saving': 0.1 },
    },
  },
  'not-at-start': {
    given: { order: 0.85, 'direct-live': 0.4, 'dock-off': 0.2, 'not-approved': 0.15, 'link-software': 0.1 },
  },
  'seen-then-lost': {
    given: {
      ...{ 'plug-not-home': 0.5, 'power-saving': 0.5, 'dock-defective': 0.3, 'not-approved': 0.35, 'direct-cable': 0.35 },
      ...{ 'dock-firmware': 0.25, 'dock-off': 0.1, supply: 0.2, 'host-firmware': 0.15, heat: 0.1, 'card-defective': 0.2 },
    },
  },
  'error-no-driver': {
    given: {
      ...{ 'mobile-chip': 0.9, 'driver-range': 0.85, resources: 0.75, 'left-over-driver': 0.4, unsupported: 0.3 },
      ...{ 'card-defective': 0.25, update: 0.2 },
    },
  },
  'no-picture': {
    given: {
      ...{ 'screen-input': 0.9, 'power-cables': 0.2, 'card-defective': 0.15, 'both-graphics': 0.15, 'driver-range': 0.1 },
      ...{ 'mobile-chip': 0.1, 'dock-off': 0.15, encryption: 0.1 },
    },
  },
  'low-copy': {
    given: {
      ...{ 'two-lanes': 0.9, 'own-cap': 0.9, 'driver-clamp': 0.9, 'cable-class': 0.85, 'direct-cable': 0.7 },
      ...{ 'shared-link': 0.75, 'idle-reading': 0.4, 'dock-firmware': 0.4, 'host-firmware': 0.35, 'plug-not-home': 0.3 },
      ...{ 'card-seat': 0.4, 'memory-window': 0.15, 'power-saving': 0.1 },
    },
  },
  'narrow-slow': {
    given: {
      ...{ 'driver-clamp': 0.9, 'idle-reading': 0.8, 'two-lanes': 0.7, 'direct-cable': 0.7, 'card-seat': 0.5 },
      ...{ 'power-saving': 0.1, 'own-cap': 0.2 },
    },
  },
  'router-slow': {
    given: {
      ...{ 'cable-class': 0.9, 'plug-not-home': 0.25, 'cable-charges': 0.1, 'host-firmware': 0.15, 'dock-firmware': 0.1 },
      ...{ 'dock-defective': 0.1, 'look-alike-port': 0.05 },
    },
  },
  'errors-rise': {
    given: { 'direct-cable': 0.8, 'plug-not-home': 0.45, 'card-seat': 0.4, 'dock-defective': 0.2, 'card-defective': 0.1 },
  },
  'drops-under-load': {
    given: {
      ...{ supply: 0.8, 'power-cables': 0.5, 'direct-cable': 0.3, 'dock-defective': 0.25, heat: 0.25 },
      ...{ 'card-defective': 0.4, 'plug-not-home': 0.25, 'card-seat': 0.15 },
    },
  },
  'freeze-under-load': {
    given: {
      ...{ 'direct-cable': 0.3, 'card-defective': 0.3, 'plug-not-home': 0.2, 'left-over-driver': 0.2, update: 0.2 },
      ...{ 'dock-defective': 0.15, heat: 0.15, 'dock-firmware': 0.1, supply: 0.15, 'both-graphics': 0.15 },
    },
  },
  'flat-frames': {
    given: {
      ...{ processor: 0.8, capped: 0.6, 'own-cap': 0.5, 'driver-clamp': 0.5, 'power-mode': 0.5, 'two-lanes': 0.4 },
      ...{ 'cable-class': 0.4, title: 0.4, 'dock-firmware': 0.3, 'shared-link': 0.3, 'panel-return': 0.3 },
      ...{ 'memory-window': 0.2, 'both-graphics': 0.2 },
    },
  },
  'load-without-watts': {
    given: {
      ...{ processor: 0.8, 'driver-clamp': 0.6, 'power-mode': 0.6, capped: 0.6, 'two-lanes': 0.5, 'cable-class': 0.5 },
      ...{ 'own-cap': 0.5, title: 0.5, 'card-memory': 0.4, 'panel-return': 0.3, 'dock-firmware': 0.3, 'shared-link': 0.3 },
      ...{ 'memory-window': 0.3, capture: 0.3 },
    },
  },
  'memory-clock-half': {
    given: {
      ...{ 'power-state': 0.9, heat: 0.3, 'left-over-driver': 0.2, 'power-cables': 0.15, capped: 0.15, update: 0.15 },
    },
  },
  'regular-hitch': {
    given: {
      ...{ capture: 0.5, title: 0.4, 'shared-link': 0.3, 'card-memory': 0.2, 'power-mode': 0.2, 'direct-cable': 0.15 },
      ...{ 'both-graphics': 0.15, 'power-saving': 0.15, heat: 0.1 },
    },
  },
  'poor-lows': {
    given: {
      ...{ 'card-memory': 0.6, 'shared-link': 0.5, processor: 0.5, title: 0.5, 'memory-window': 0.4, capture: 0.4 },
      ...{ 'two-lanes': 0.3, 'cable-class': 0.3, 'own-cap': 0.3, 'power-mode': 0.3, 'plug-not-home': 0.2, 'direct-cable': 0.2 },
    },
  },
  'textures-collapse': {
    given: { 'card-memory': 0.9, 'memory-window': 0.2, supply: 0.1, 'card-defective': 0.1 },
  },
  'desktop-stutter': {
    given: { 'both-graphics': 0.6, capture: 0.3, 'left-over-driver': 0.2, 'panel-return': 0.2, 'link-software': 0.1 },
  },
  'bigger-slower': {
    given: {
      ...{ 'power-state': 0.5, processor: 0.4, title: 0.4, 'own-cap': 0.3, 'left-over-driver': 0.3, 'driver-clamp': 0.3 },
      ...{ 'driver-range': 0.2, 'memory-window': 0.2 },
    },
  },
  'slower-than-inside': {
    given: {
      ...{ 'both-graphics': 0.4, 'wrong-device': 0.4, 'driver-clamp': 0.3, title: 0.3, 'power-state': 0.2 },
      ...{ 'card-memory': 0.2, 'panel-return': 0.2 },
    },
  },
  'slow-on-panel': { given: { 'panel-return': 0.95 } },
  'wrong-card': { given: { 'wrong-device': 0.8, 'both-graphics': 0.6, 'driver-range': 0.1, 'screen-input': 0.1 } },
  'small-window': { given: { 'other-screen': 0.95 } },
  'recovery-key-asked': { given: { encryption: 0.95, 'host-firmware': 0.1 } },
  'handheld-hot': { given: { heat: 0.85, 'power-mode': 0.6 } },
  'worked-before': {
    given: {
      ...{ update: 0.95, unsupported: 0.3, 'driver-range': 0.3, 'left-over-driver': 0.2, 'not-approved': 0.15 },
      ...{ 'dock-firmware': 0.1, 'plug-not-home': 0.2, 'card-defective': 0.2, 'dock-defective': 0.2 },
    },
  },
  'not-back': {
    given: { 'power-saving': 0.8, order: 0.3, 'dock-off': 0.3, 'dock-firmware': 0.2, 'both-graphics': 0.1 },
  },
  'battery-falls': { given: { 'charge-contract': 0.95, 'cable-charges': 0.05, supply: 0.2, 'power-mode': 0.1 } },
  'title-refuses': {
    given: {
      ...{ title: 0.4, 'left-over-driver': 0.2, 'driver-range': 0.2, 'wrong-device': 0.2, 'card-memory': 0.1 },
      ...{ 'screen-input': 0.1, 'other-screen': 0.15 },
    },
  },
  'no-lamp': { given: { 'dock-off': 0.9, 'dock-defective': 0.4, 'power-cables': 0.15, supply: 0.2, 'flash-broken': 0.2 } },
  'does-not-fit': { given: { 'too-big': 0.9, 'card-seat': 0.3, 'plug-not-home': 0.2 } },
  'update-stuck': { given: { 'flash-broken': 0.9, 'cable-charges': 0.05, 'plug-not-home': 0.15, 'power-saving': 0.3 } },
  'host-dead': { given: { ribbon: 0.7, 'boot-drive': 0.7, encryption: 0.1, 'direct-live': 0.1, 'plug-not-home': 0.05 } },
};
