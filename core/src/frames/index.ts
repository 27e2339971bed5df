export * from './lows';
export * from './below';
export * from './seconds';
export * from './stutters';
export * from './cap';
export * from './summary';
export * from './pyramid';
export * from './spread';
