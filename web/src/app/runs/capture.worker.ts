import { expose, transfer } from 'comlink';
import { captureCalls } from './capture-calls';

/** The worker that reads captures and readies runs for drawing, so that the page stays free. */
const calls = captureCalls((value, buffers) => transfer(value, buffers));
expose(calls);
