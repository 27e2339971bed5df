export * from './tally';
export * from './chain-key';
