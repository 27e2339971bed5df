export * from './ids';
export * from './symptoms';
export * from './seen';
export { supportOf, type Support } from './support';
