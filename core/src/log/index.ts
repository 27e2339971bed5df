export * from './tally';
export * from './chain-key';
export * from './as-on';
