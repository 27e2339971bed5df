import { configSpace } from '../config-space';
import { file, link, value, type Entry } from './entry';
import type { Placed } from './node';

const hex = (n: number, digits: number) => `0x${n.toString(16).padStart(digits, '0')}`;
const wide = (n: bigint) => `0x${n.toString(16).padStart(16, '0')}`;

/** Memory, prefetchable, 64 bits wide. Source: linux/ioport.h, from memory. */
const FLAGS = 0x14220cn;

/** Start, end and flags of each region; one without room reads 0 but for its flags. */
function resources(d: Placed['device']): string {
  const lines = Array.from({ length: 7 }, () => `${wide(0n)} ${wide(0n)} ${wide(0n)}`);
  (d.regions ?? []).slice(0, 3).forEach((r, i) => {
    lines[2 * i] =
      r.at > 0n
        ? `${wide(r.at)} ${wide(r.at + r.bytes - 1n)} ${wide(FLAGS)}`
        : `${wide(0n)} ${wide(0n)} ${wide(FLAGS)}`;
  });
  return `${lines.join('\n')}\n`;
}

/** "8.0 GT/s PCIe", and what the kernel says of a link that rests with its power off. */
function speed(gts: number, known: boolean): string {
  return known ? `${gts.toFixed(1)} GT/s PCIe` : 'Unknown';
}

function linkFiles(p: Placed): Entry[] {
  const l = p.device.link;
  if (!l || !p.device.port) return [];
  const awake = !p.node.files['power_state']?.startsWith('D3');
  return [
    value(`${p.dir}/max_link_speed`, speed(l.capGts, true)),
    value(`${p.dir}/max_link_width`, l.capLanes),
    value(`${p.dir}/current_link_speed`, speed(l.nowGts, awake && p.device.gone !== true)),
    value(`${p.dir}/current_link_width`, p.device.gone === true ? 63 : l.nowLanes),
  ];
}

/** The folder of one PCI function. Source: Linux kernel ABI, sysfs-bus-pci, from memory. */
export function pciEntries(p: Placed): Entry[] {
  const { device: d, node, dir } = p;
  const at = (name: string) => `${dir}/${name}`;
  const decodes = (d.regions ?? []).length === 0 || (d.regions ?? []).some((r) => r.at > 0n);
  const id = (n: number) => n.toString(16).toUpperCase().padStart(8, '0');
  const cls = d.classCode.toString(16).padStart(6, '0').toUpperCase();
  const modalias = `pci:v${id(d.vendor)}d${id(d.device)}sv${id(d.vendor)}sd00000001bc${cls.slice(0, 2)}sc${cls.slice(2, 4)}i${cls.slice(4)}`;
  return [
    file(at('config'), configSpace(d)),
    value(at('vendor'), hex(d.vendor, 4)),
    value(at('device'), hex(d.device, 4)),
    value(at('subsystem_vendor'), hex(d.vendor, 4)),
    value(at('subsystem_device'), hex(1, 4)),
    value(at('revision'), hex(d.revision ?? 1, 2)),
    value(at('class'), hex(d.classCode, 6)),
    value(at('irq'), 16),
    file(at('resource'), resources(d)),
    value(at('modalias'), modalias),
    value(at('uevent'), `PCI_CLASS=${cls}\nPCI_SLOT_NAME=${d.address}\nMODALIAS=${modalias}`),
    value(at('enable'), decodes && node.driver !== null ? 1 : 0),
    value(at('numa_node'), -1),
    value(at('removable'), d.address.startsWith('0000:00:') ? 'fixed' : 'removable'),
    ...(d.bus
      ? [
          value(at('secondary_bus_number'), d.bus.secondary),
          value(at('subordinate_bus_number'), d.bus.subordinate),
        ]
      : []),
    ...('power_state' in node.files ? [] : [value(at('power_state'), 'D0')]),
    ...Object.entries(node.files).map(([name, data]) => file(at(name), data)),
    ...linkFiles(p),
    link(at('subsystem'), 'sys/bus/pci'),
    ...(node.driver ? [link(at('driver'), `sys/bus/pci/drivers/${node.driver}`)] : []),
    link(`sys/bus/pci/devices/${d.address}`, dir),
  ];
}
