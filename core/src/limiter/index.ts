export * from './shares';
export * from './observed';
export * from './evidence';
export * from './limiter';
export * from './elasticity';
export * from './alarms';
