/** One good part of every kind, for tests. */
const socket = {
  key: 'left',
  connector: 'usb-c',
  standard: 'usb4-40',
  tunnelling: 'yes',
  controller: 'built-in',
  pcieGen: 4,
  lanes: 4,
};

export const SPECS = {
  host: {
    maker: 'Alder',
    model: 'H-1',
    form: 'laptop',
    sockets: [socket, { ...socket, key: 'right', standard: 'usb-c', tunnelling: 'no' }],
  },
  cable: { maker: 'Alder', model: 'K-1', connector: 'usb-c', construction: 'passive', lengthMm: 700, markedGbps: 40 },
  dock: { maker: 'Alder', model: 'D-1', form: 'enclosure', connector: 'usb-c', uplink: 'usb4-40', slotGen: 3, slotLanes: 4 },
  card: { maker: 'Alder', model: 'C-1', pcieGen: 4, lanes: 16 },
  supply: { maker: 'Alder', model: 'S-1', form: 'atx', supplyW: 550, cables8Pin: 2 },
  screen: { maker: 'Alder', model: 'V-1', widthPx: 2560, heightPx: 1440, hz: 60, dpLevel: 'hbr2' },
  system: { maker: 'Alder', model: 'O-1', family: 'linux', outsideCards: 'yes' },
  release: { maker: 'Alder', model: 'D-1', variant: '1.8', what: 'dockFirmware', releasedOn: '2026-02-01' },
  requirement: {
    maker: 'Alder',
    model: 'D-1',
    variant: 'Dock firmware before first use',
    subject: 'dock',
    needs: 'dockFirmware',
    atLeast: '1.8',
    severity: 'care',
    effect: 'crashes on plugging in',
    source: 'release notes',
  },
} as const;
