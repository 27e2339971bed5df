export * from './timing';
export * from './rates';
export * from './picture';
