export { survey, type Hidden, type Survey } from './survey';
export { benchAnswer, type Shown } from './answer';
export { PRACTICE_CASES, PRACTICE_CHAINS, type PracticeCase } from './cases';
export { hideFault } from './hide';
