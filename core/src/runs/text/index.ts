export * from './capture';
export * from './frame-model';
export * from './pairs';
export * from './repeats';
export * from './result';
export * from './runs';
export * from './signs';
export * from './stated-figure';
