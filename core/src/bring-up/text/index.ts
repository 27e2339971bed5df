export * from './bring-up';
export * from './cautions';
export * from './checklist';
export * from './health';
export * from './reading';
