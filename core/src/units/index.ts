export * from './range';
export * from './num';
