export * from './types';
export * from './standards';
export { usbCableRate, passiveLengthMm } from './cable';
export { worlds, hangsOn, socketPath, type World } from './worlds';
export { plugMismatch } from './shapes';
export { usableGbps, packetRule } from './hops';
export { joinLink } from './link';
