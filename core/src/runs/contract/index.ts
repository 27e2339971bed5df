export * from './profiles';
export * from './runs';
export * from './endpoints';
export * from './stated-figures';
