/**
 * Plugs and what they can carry. A connector says which standards are possible, never which one
 * is there: the shape proves nothing.
 */
export const CONNECTORS = {
  'usb-c': 'USB-C',
  'mini-dp': 'Mini DisplayPort shape',
  'oculink-4i': 'OCuLink 4i (small, four lanes)',
  'oculink-8i': 'OCuLink 8i (wide, eight lanes)',
  m2: 'M.2 slot inside the host',
  'mini-card': 'Mini card slot inside the host (one lane)',
  expresscard: 'ExpressCard slot (one lane)',
  'own-port': "Maker's own PCIe port",
  'pcie-slot': 'Card slot',
} as const;
export type Connector = keyof typeof CONNECTORS;

/** What a host's port can be. A slot inside the host counts as a port that an adapter fills. */
export const PORT_STANDARDS = {
  'usb-c': 'USB-C that carries no PCIe',
  'thunderbolt-1': 'Thunderbolt 1',
  'thunderbolt-2': 'Thunderbolt 2',
  'thunderbolt-3': 'Thunderbolt 3',
  'usb4-20': 'USB4, 20 Gb/s',
  'usb4-40': 'USB4, 40 Gb/s',
  'thunderbolt-4': 'Thunderbolt 4',
  'usb4-80': 'USB4, 80 Gb/s',
  'thunderbolt-5': 'Thunderbolt 5',
  oculink: 'OCuLink (direct PCIe)',
  pcie: 'PCIe lanes (direct)',
  displayport: 'DisplayPort only (no PCIe)',
  sata: 'SATA only (no PCIe)',
} as const;
export type PortStandard = keyof typeof PORT_STANDARDS;

/** Standards that carry no PCIe, whatever is plugged in. */
export const WITHOUT_PCIE = [
  'usb-c',
  'displayport',
  'sata',
] as const satisfies readonly PortStandard[];
export type DeadStandard = (typeof WITHOUT_PCIE)[number];
export type UplinkStandard = Exclude<PortStandard, DeadStandard>;
export type TunnelStandard = Exclude<UplinkStandard, 'oculink' | 'pcie'>;

/** The standards a dock may have: all that carry PCIe. */
export const UPLINK_STANDARDS = Object.fromEntries(
  Object.entries(PORT_STANDARDS).filter(
    ([key]) => !(WITHOUT_PCIE as readonly string[]).includes(key),
  ),
) as Record<UplinkStandard, string>;

const USB_C: readonly PortStandard[] = [
  'usb-c',
  'thunderbolt-3',
  'usb4-20',
  'usb4-40',
  'thunderbolt-4',
  'usb4-80',
  'thunderbolt-5',
];

/** Standards each connector may carry, plainest first. */
export const CARRIES: Readonly<Record<Connector, readonly PortStandard[]>> = {
  'usb-c': USB_C,
  'mini-dp': ['displayport', 'thunderbolt-1', 'thunderbolt-2'],
  'oculink-4i': ['oculink'],
  'oculink-8i': ['oculink'],
  m2: ['sata', 'pcie'],
  'mini-card': ['pcie'],
  expresscard: ['pcie'],
  'own-port': ['pcie'],
  'pcie-slot': ['pcie'],
};

/**
 * Lanes a connector has room for. OCuLink: from memory of SFF-8611 / SFF-TA-1003; M.2 key M: from memory of the PCI Express M.2
 * Specification; mini card and ExpressCard: one lane, from memory of the PCI Express Mini Card and ExpressCard specifications;
 * a maker's own port: eight at most, common practice, no published source.
 */
export const CONNECTOR_LANES: Readonly<Partial<Record<Connector, number>>> = {
  'oculink-4i': 4,
  'oculink-8i': 8,
  m2: 4,
  'mini-card': 1,
  expresscard: 1,
  'own-port': 8,
};

/**
 * Does a connector carry a tunnel? All others are direct PCIe.
 * @param connector the plug
 * @returns true where it does
 * @example carriesTunnel('usb-c') // => true
 */
export function carriesTunnel(connector: Connector): boolean {
  return (TUNNEL_PLUGS as readonly Connector[]).includes(connector);
}

/**
 * Is a connector a slot inside a host? Whatever sits in one must make room.
 * @param connector the plug
 * @returns true where it is
 */
export function isInside(connector: Connector): boolean {
  return connector === 'm2' || connector === 'mini-card' || connector === 'expresscard';
}

/**
 * Does a port standard tunnel PCIe, or may it?
 * @param standard of the port
 * @returns true where it does
 */
export function hasPcie(standard: PortStandard): standard is UplinkStandard {
  return !(WITHOUT_PCIE as readonly string[]).includes(standard);
}

/** Connectors of a tunnel, and of direct PCIe with plugs outside the case: which attributes are asked hangs on it. */
export const TUNNEL_PLUGS = ['usb-c', 'mini-dp'] as const satisfies readonly Connector[];
export const DIRECT_PLUGS = [
  'oculink-4i',
  'oculink-8i',
  'own-port',
] as const satisfies readonly Connector[];

type Some<K extends Connector> = Pick<typeof CONNECTORS, K>;
function some<K extends Connector>(...keys: K[]): Some<K> {
  return Object.fromEntries(keys.map((k) => [k, CONNECTORS[k]])) as Some<K>;
}

export const SOCKET_CONNECTORS = some(
  'usb-c',
  'mini-dp',
  'oculink-4i',
  'oculink-8i',
  'm2',
  'mini-card',
  'expresscard',
  'own-port',
);
export const CABLE_CONNECTORS = some('usb-c', 'mini-dp', 'oculink-4i', 'oculink-8i', 'own-port');
export const ADAPTER_ENDS = some(
  'usb-c',
  'mini-dp',
  'oculink-4i',
  'oculink-8i',
  'm2',
  'mini-card',
  'expresscard',
  'pcie-slot',
);
