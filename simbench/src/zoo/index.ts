export * from './frames';
export * from './regimes';
export * from './title';
