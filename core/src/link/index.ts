export * from './types';
export * from './standards';
export * from './mode';
export { usbCableRate, passiveLengthMm, cablesOf, directGen, type Piece } from './cable';
export { worlds, hangsOn, socketPath, NOT_ASKED, type World } from './worlds';
export { plugMismatch, portFamilies, isDirect, missing } from './plugs';
export { takesOf } from './limits';
export { usableGbps, packetRule, type PacketRule } from './hops';
export { joinLink } from './link';
