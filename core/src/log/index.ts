export * from './outcomes';
export * from './tally';
export * from './match';
export * from './weights';
export * from './evidence';
export * from './reliability';
export * from './as-on';
