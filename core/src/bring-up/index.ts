export * from './grade';
export * from './counts';
export * from './compare';
export * from './reasons';
export * from './link-check';
export * from './health';
export * from './failing';
