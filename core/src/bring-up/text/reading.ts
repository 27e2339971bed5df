import type { Unsaid } from '../reports/host-draft';
import type { ReadProblem } from '../reports/types';

const size = (chars: number) =>
  chars >= 1e6 ? `${(chars / 1e6).toFixed(1)} million` : String(chars);

/**
 * Reason why a text was not read, with its place and what to do about it.
 *
 * @param p the problem
 * @returns the sentence
 */
export function readProblemText(p: ReadProblem): string {
  switch (p.code) {
    case 'empty':
      return 'Nothing was pasted. Paste what "sudo lspci -vv" prints, or a JSON report.';
    case 'too-big':
      return `Not read: ${size(p.chars)} characters, at most ${size(p.most)}. Paste the listing of one machine, once.`;
    case 'binary':
      return `Not read: character ${p.at + 1} is no text. This looks like a binary file; paste what "sudo lspci -vv" prints.`;
    case 'no-devices':
      return `Not read: no line begins like a device, such as "00:07.0 PCI bridge". The first line reads "${p.firstLine}".`;
    case 'too-many':
      return `Not read: more than ${p.most} devices. Paste the listing of one machine.`;
    case 'bad-json':
      return `Not read: it begins like a JSON report but is not whole JSON (${p.why}).`;
    case 'bad-report':
      return `Not read: the JSON report is wrong at ${p.path || 'its top'}: ${p.why}.`;
  }
}

/** What a report cannot say of a host, and how to find it out. */
export const UNSAID_TEXTS: Record<Unsaid, string> = {
  names: 'Maker and model are not on the bus: read the label under the base, 1 minute.',
  ports: 'No port that takes a dock was seen. Look for the mark beside each port, 5 minutes.',
  plugs: 'By which plug the card hangs on the host is not on the bus: look at the port, 1 minute.',
  standards: 'Which of several standards a port has is not on the bus: read its mark, 5 minutes.',
  'inner-width':
    'What lies behind a built-in controller is not on the bus. Leave it open: it is seldom the bottleneck.',
  rights: 'Rates, widths and ports need rights. Run this and paste again:',
};

/** The command that shows everything the link check reads. */
export const READ_COMMAND = 'sudo lspci -vv';

/** The command that runs the probe; it reads names, plugs and routers too, and most of it without rights. */
export const PROBE_COMMAND = 'node probe.mjs > report.json';
