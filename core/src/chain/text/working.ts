import { isExact, type Range } from '../../base';
import { asRange, formatWhole, rate } from '../../base/text';
import { lane, TUNNELS } from '../link/standards';
import type { Working } from '../link/types';

const num = (w: Working, key: string): Range => asRange(w.args[key]);
const figure = (r: Range, digits = 2) =>
  !Number.isFinite(r.hi)
    ? 'not known'
    : isExact(r)
      ? r.lo.toFixed(digits)
      : `(${r.lo.toFixed(digits)} to ${r.hi.toFixed(digits)})`;

function pcie(w: Working): string {
  const gen = num(w, 'gen');
  const lanes = num(w, 'lanes');
  const { gigatransfers, name } = lane(Math.floor(gen.hi));
  const encoding = name === '8b/10b' ? '8/10' : '128/130';
  if (!isExact(gen) || !isExact(lanes))
    return `Gen${formatWhole(gen)} ×${formatWhole(lanes)} = ${figure(num(w, 'raw'))} Gb/s raw`;
  return `${gigatransfers} GT/s × ${lanes.lo} lanes × ${encoding} = ${figure(num(w, 'raw'))} Gb/s raw`;
}

function tunnel(w: Working): string {
  const transport = num(w, 'transport');
  const behind =
    w.args['behind'] === undefined ? '' : `, PCIe behind it ${figure(num(w, 'behind'))}`;
  const from = Object.values(TUNNELS).find(
    (t) => Math.abs(t.signallingGbps * t.lanes * t.encoding - transport.lo) < 1e-9,
  );
  const made =
    from && isExact(transport)
      ? ` (${from.signallingGbps} × ${from.lanes} × ${from.encodingName.replaceAll('b', '')})`
      : '';
  const taken =
    w.args['taken'] === undefined ? '' : ` less ${figure(num(w, 'taken'))} taken by others`;
  return `least of transport ${figure(transport)}${made}${taken}${behind} = ${figure(num(w, 'raw'))} Gb/s raw`;
}

/**
 * A working as one line with the numbers in it.
 * @param w the working, host side first
 * @param result what it comes to
 * @returns the line
 */
export function formula(w: Working, result: Range): string {
  switch (w.rule) {
    case 'pcie-raw':
      return pcie(w);
    case 'tunnel-raw':
      return tunnel(w);
    case 'usable': {
      const header = num(w, 'header').lo + num(w, 'tunnel').lo;
      const payload = formatWhole(num(w, 'payload'));
      return `${figure(num(w, 'raw'))} × ${payload} / (${payload} + ${header}) × ${(1 - num(w, 'allowance').lo / 100).toFixed(2)} = ${rate(result)} Gb/s usable`;
    }
    case 'capped':
      return `least of ${figure(num(w, 'computed'), 1)} and the dock's cap ${figure(num(w, 'cap'), 1)} = ${rate(result)} Gb/s usable`;
    case 'broken':
      return 'nothing passes: 0.0 Gb/s';
    case 'least-of-hops':
      return `least of the hops = ${rate(result)} Gb/s usable`;
  }
}

export const SOURCES: Record<Working['source'], string> = {
  'pcie-base': 'PCI Express Base Specification',
  usb4: 'USB4 Specification',
  'usb-c-cable': 'USB Type-C Cable and Connector Specification, lengths from memory',
  oculink: 'OCuLink, from memory',
  house: 'house rule',
  log: 'the log',
  'kernel-abi': 'Linux kernel ABI, from memory',
  'common-practice': 'common practice, no published source',
  display: 'VESA Coordinated Video Timings, CTA-861 and link rates, from memory',
  requirement: 'the requirement or release named',
};
