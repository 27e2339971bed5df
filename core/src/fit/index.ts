export * from './clearance';
