export * from './areas';
export * from './finding';
export * from './glance';
export * from './headline';
export * from './not-known';
export * from './plan-steps';
export * from './verdict-words';
