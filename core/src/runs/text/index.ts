export * from './runs';
export * from './toll';
export * from './toll-figure';
