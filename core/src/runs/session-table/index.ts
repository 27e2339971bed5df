export * from './path-words';
export * from './propose-settings';
export * from './setting-words';
