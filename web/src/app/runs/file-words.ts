import { figureText } from '@ruddy/core/base/text';
import { pluralize } from '../platform/shared/format';
import { type FileRow, framesOf, isLog, lanesOf, runsOf } from './run-files';

/** What a file holds, in words; empty before it is read. */
export function holdsOf(r: FileRow): string {
  const frames = framesOf(r).map(
    (s) =>
      `${s.program ? `${s.program}: ` : ''}${pluralize(s.frames.length, 'frame')}, ${figureText(s.stats?.seconds ?? 0)} s, ${figureText(s.stats?.averageFps ?? 0)} frames/s${s.shown ? ', shown ones apart' : ''}${s.lanes.length > 0 ? `, ${pluralize(s.lanes.length, 'sensor')}` : ''}`,
  );
  const rates = runsOf(r).length > 0 && frames.length === 0 ? ', frames a second among them' : '';
  return [
    ...frames,
    ...(isLog(r) ? [`a log of ${pluralize(lanesOf(r).length, 'sensor')}${rates}`] : []),
  ].join('; ');
}

function readState(r: FileRow): string {
  const bad = r.read?.badCount ?? 0;
  if (bad > 0 && !r.rest) return `${pluralize(bad, 'row')} cannot be read: not saved`;
  if ((r.read?.doubts.length ?? 0) > 0 && !r.accepted) return 'Doubtful: look at it';
  const runs = runsOf(r).length;
  if (runs === 0 && isLog(r))
    return r.beside === null
      ? 'Recorded with no file: not saved'
      : 'Saved with the frames it was recorded with';
  return pluralize(runs, 'run to save', 'runs to save');
}

/** What becomes of a file, in words. */
export function stateOf(r: FileRow): string {
  switch (r.state) {
    case 'looking':
      return 'Looking at it …';
    case 'confirm':
      return 'Map columns';
    case 'reading':
      return `Reading: ${Math.round(r.share * 100)} %`;
    case 'read':
      return readState(r);
    case 'storing':
      return 'Saving …';
    case 'stored':
      return r.runs > 0 ? `${pluralize(r.runs, 'run')} saved` : 'Saved';
    case 'stopped':
    case 'refused':
      return 'Not saved';
  }
}
