export * from './version';
export * from './match';
export * from './requirement';
export * from './releases';
