export * from './frame-model';
export * from './runs';
export * from './toll';
export * from './toll-figure';
