export * from './range';
export * from './num';
export * from './dates';
