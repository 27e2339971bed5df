export * from './config-space';
export * from './topologies';
export * from './sysfs';
