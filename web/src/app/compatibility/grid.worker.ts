import { expose } from 'comlink';
import { gridCalls } from './grid-calls';

/** The worker that predicts the cells of a grid, so that scrolling stays free. */
expose(gridCalls());
