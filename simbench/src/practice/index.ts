export { inspect, type InjectedFault, type Inspection } from './inspect';
export { benchAnswer, type Shown } from './answer';
export { PRACTICE_CASES, PRACTICE_CHAINS, type PracticeCase } from './cases';
export { injectFault } from './inject-fault';
