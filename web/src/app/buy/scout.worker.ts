import { expose } from 'comlink';
import { scoutCalls } from './scout-calls';

/** The worker that searches, so that the page stays free. */
expose(scoutCalls());
