export * from './names';
export * from './slots';
export * from './look-alikes';
export * from './piece';
