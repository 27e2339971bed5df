import { textAttr } from './meta';

/** Where a maker's paper gives the answer. */
export const manual = (what: string, minutes: number) => ({
  how: `Look up ${what} in the maker's manual or data sheet.`,
  minutes,
});

/** Attributes of every part: maker and names. */
export const named = {
  maker: textAttr('Maker', 80, true),
  model: textAttr('Model', 80, true),
  variant: textAttr('Variant', 80, false, {
    help: 'A memory size, a colour, a revision: what sets it apart.',
  }).default(''),
};

export const portFamily = textAttr("Name of the maker's own port", 60, false, {
  when: { attr: 'connector', is: ['own-port'] },
  help: "Only for a maker's own port: both ends must be of the same family.",
  findOut: manual("the name of the maker's own port, on host and dock alike,", 3),
}).default('');

/** Kind of the high-power sockets and plugs. An unknown one has sense pins. */
export const WIDE_KINDS = {
  sense: '16 pins, with sense pins',
  older: 'Older: 12 pins, no sense pins',
} as const;
