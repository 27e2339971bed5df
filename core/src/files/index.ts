export * from './cells';
export * from './columns';
export * from './rows';
export * from './template';
export * from './log-rows';
