export * from './facts';
export * from './compare';
export * from './labels';
export * from './grid';
export * from './experiment';
export * from './session';
export * from './over-time';
export * from './converge';
