export * from './names';
export * from './slots';
