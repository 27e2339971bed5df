export * from './figures';
export * from './glossary';
export * from './interval';
