export * from './efficiency';
export * from './plugs';
export * from './peaks';
export * from './supply';
