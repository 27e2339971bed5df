export { leastSquares, type Solved } from './solve';
export { searchLayouts } from './search';
export { calibrate, commonLook, fitCell, FIT_VERSION } from './calibrate';
