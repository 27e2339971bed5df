export * from './wilson';
export * from './trend';
export * from './quantile';
export * from './student';
export * from './means';
export * from './beta';
export * from './poisson';
