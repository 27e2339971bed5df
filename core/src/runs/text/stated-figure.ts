import { figureText } from '../../base/text';
import { COMPARISONS, type Said, type StatedFigure } from '../frame-model/stated-figure';
import type { RigFacts } from '../rig';
import type { RunSettings } from '../schema';

type Picture = Pick<RunSettings, 'resolution' | 'screenPath'>;

const rigText = (r: RigFacts) =>
  [r.host, r.card, r.slot ? 'in a desktop slot' : ''].filter((s) => s !== '').join(', ');
const pictureText = (p: Picture) =>
  `${p.resolution === '' ? '' : ` at ${p.resolution}`}${p.screenPath === 'panel' ? " on the host's panel" : ''}`;
/** As it was typed: a stated figure is not rounded again. */
const typed = (figure: number) => figure.toLocaleString('en', { maximumFractionDigits: 6 });

function figureOf(said: Said, capFps: number | null): string {
  const about = 'about' in said && said.about ? 'about ' : '';
  switch (said.kind) {
    case 'frames':
      return `${about}${typed(said.fps)} frames/s`;
    case 'bound':
      return `${said.side === 'at-least' ? 'at least' : 'at most'} ${typed(said.fps)} frames/s`;
    case 'held':
      return `held at ${figureText(capFps ?? 0)} frames/s`;
    case 'points':
      return `${typed(said.points)} points`;
    case 'ratio':
      return `${about}${typed(said.amount)} ${COMPARISONS[said.how]} ${rigText(said.other.rig)}${pictureText(said.other)}`;
    case 'cards':
      return `${about}${typed(said.amount)} ${COMPARISONS[said.how]} ${said.other.rig.card}`;
  }
}

/**
 * A stated figure in one line: of what, then the figure as it was typed.
 * @param f the figure
 * @returns one line
 */
export function statedFigureText(f: StatedFigure): string {
  const { said, settings } = f;
  const of = said.kind === 'cards' ? f.rig.card : `${rigText(f.rig)}${pictureText(settings)}`;
  return `${of}: ${figureOf(said, settings.capFps)}`;
}
