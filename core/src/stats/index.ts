export * from './wilson';
export * from './trend';
