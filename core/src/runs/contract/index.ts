export * from './profiles';
export * from './runs';
