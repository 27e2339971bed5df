export * from './grade';
export * from './compare';
export * from './reasons';
export * from './link-check';
