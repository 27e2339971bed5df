import { stated } from '@ruddy/core/base';
import { isAdapter } from '@ruddy/core/chain';
import { word } from '../parts';
import { dockLives, shown, currentTopology, type SimulatedBench } from '../simulated-bench';
import { value, type Entry } from './entry';

/** Chassis types by kind of host. Source: DMTF System Management BIOS Reference Specification, table of enclosure types, from memory. */
const CHASSIS = { laptop: 10, 'mini-pc': 35, handheld: 11, desktop: 3 } as const;

/** Who made the machine, as its firmware says. The serial number is there, as in a real one, to be left alone. */
export function dmiEntries(w: SimulatedBench): Entry[] {
  const { host, installed } = w.chain;
  if (!host) return [];
  const f = (name: string, v: string | number) => value(`sys/class/dmi/id/${name}`, v);
  return [
    f('sys_vendor', host.maker),
    f('product_name', host.model),
    f('product_version', host.variant),
    f('product_serial', 'PRIVATE-SERIAL-0001'),
    f('chassis_type', CHASSIS[host.form]),
    f('bios_version', installed.hostFirmware || '1.0'),
    value('proc/sys/kernel/osrelease', installed.systemBuild || '6.12.0-bench'),
    value('proc/sys/kernel/hostname', 'private-host-name'),
  ];
}

/** USB-C ports with who is at their other end. Source: Linux kernel ABI, sysfs-class-typec, from memory. */
export function typecEntries(w: SimulatedBench): Entry[] {
  const ports = (w.chain.host?.sockets ?? []).filter((s) => s.connector === 'usb-c');
  const contact =
    w.stage !== 'unplugged' && dockLives(w) && currentTopology(w)?.barrier !== 'no-contact';
  const partner = contact && (w.faults['dock-defective'] ?? 0) === 0;
  return ports.flatMap((s, i): Entry[] => {
    const dir = `sys/class/typec/port${i}`;
    const at = partner && s.key === w.plugged;
    const cable = (w.chain.path ?? []).map((p) => p.spec).find((p) => !isAdapter(p));
    const active = cable && !isAdapter(cable) && word(cable.construction, 'passive') === 'active';
    return [
      value(`${dir}/data_role`, '[host] device'),
      value(`${dir}/power_role`, 'source [sink]'),
      value(`${dir}/usb_power_delivery_revision`, '3.1'),
      ...(at
        ? [
            value(`${dir}-partner/supports_usb_power_delivery`, 'yes'),
            value(`${dir}-partner/type`, 'hub'),
          ]
        : []),
      ...(at && cable
        ? [
            value(`${dir}-cable/type`, active ? 'active' : 'passive'),
            value(`${dir}-cable/plug_type`, 'type-c'),
          ]
        : []),
    ];
  });
}

/** Mains and battery of the host. Source: Linux kernel ABI, sysfs-class-power, from memory. */
export function powerEntries(w: SimulatedBench): Entry[] {
  const { host, settings } = w.chain;
  if (!host || (host.form !== 'laptop' && host.form !== 'handheld')) return [];
  const charged = word(settings.ownCharger, 'yes') === 'yes';
  const capacity = stated(host.batteryWh)?.lo ?? 50;
  return [
    value('sys/class/power_supply/AC/type', 'Mains'),
    value('sys/class/power_supply/AC/online', charged ? 1 : 0),
    value('sys/class/power_supply/BAT0/type', 'Battery'),
    value('sys/class/power_supply/BAT0/status', charged ? 'Charging' : 'Discharging'),
    value('sys/class/power_supply/BAT0/capacity', 80),
    value('sys/class/power_supply/BAT0/energy_full', capacity * 1_000_000),
    value('sys/class/power_supply/BAT0/serial_number', 'PRIVATE-SERIAL-0002'),
  ];
}

/** Connectors of the graphics, and whether a screen answers there. Source: Linux kernel, drivers/gpu/drm, sysfs, from memory. */
export function drmEntries(w: SimulatedBench): Entry[] {
  const { host } = w.chain;
  const state = shown(w);
  const inside = host && word(host.graphics, 'internal') !== 'none';
  const panel = stated(host?.panelWidthPx ?? null);
  const height = stated(host?.panelHeightPx ?? null);
  const held = state.stage === 'bound' || state.stage === 'in-use';
  const screen = w.chain.picture[0]?.screen;
  const width = stated(screen?.widthPx ?? null)?.hi ?? 1920;
  const rows = stated(screen?.heightPx ?? null)?.hi ?? 1080;
  return [
    ...(inside && panel && height
      ? [
          value('sys/class/drm/card0-eDP-1/status', 'connected'),
          value('sys/class/drm/card0-eDP-1/modes', `${panel.hi}x${height.hi}`),
        ]
      : []),
    ...(held
      ? [
          value('sys/class/drm/card1-DP-1/status', state.picture ? 'connected' : 'disconnected'),
          value('sys/class/drm/card1-DP-1/modes', state.picture ? `${width}x${rows}` : ''),
        ]
      : []),
  ];
}
