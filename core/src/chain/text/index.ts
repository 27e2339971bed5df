export * from './question';
export * from './working';
