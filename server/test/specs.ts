/** One good part of every kind with everything known, for tests: a chain of them works. */
const socket = {
  key: 'left',
  connector: 'usb-c',
  standard: 'usb4-40',
  tunnelling: 'yes',
  controller: 'built-in',
  pcieGen: 4,
  lanes: 4,
  chargeInW: 100,
};
const cables = { cables8Pin: 2, cables8PinPair: 0, cables6Pin: 0, cables16Pin: 0 };

export const SPECS = {
  host: {
    maker: 'Alder',
    model: 'H-1',
    form: 'laptop',
    ...{ batteryWh: 60, drawW: 60, chargeMinW: 30 },
    sockets: [socket, { ...socket, key: 'right', standard: 'usb-c', tunnelling: 'no' }],
  },
  cable: {
    maker: 'Alder',
    model: 'K-1',
    connector: 'usb-c',
    construction: 'passive',
    lengthMm: 700,
    markedGbps: 40,
    markedW: 100,
  },
  dock: {
    ...{ maker: 'Alder', model: 'D-1', form: 'enclosure', connector: 'usb-c', uplink: 'usb4-40', slotGen: 3, slotLanes: 4 },
    ...{ supply: 'inside', supplyW: 450, supplyStandard: 'atx3', slotW: 75, chargeOutW: 100, ...cables },
    ...{ innerLengthMm: 330, innerHeightMm: 180, innerSlots: 3, airflowCfm: 60 },
  },
  card: {
    ...{ maker: 'Alder', model: 'C-1', pcieGen: 4, lanes: 16, boardW: 200, slotW: 66, cooler: 'open-air' },
    ...{ plugs8Pin: 1, plugs6Pin: 0, plugs16Pin: 0, plugSide: 'top', plugAngled: 'no' },
    ...{ lengthMm: 240, heightMm: 115, slots: 2, weightG: 900 },
  },
  supply: { maker: 'Alder', model: 'S-1', form: 'atx', supplyW: 550, supplyStandard: 'atx3', ...cables },
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
