export * from './compatibility';
export * from './log-share';
export * from './outcomes';
export * from './stated';
export * from './endpoints';
