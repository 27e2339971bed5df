export * from './symptoms';
export * from './tests-card';
export * from './tests-link';
export * from './tests-run';
export * from './trouble';
