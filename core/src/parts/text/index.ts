export * from './plausible';
