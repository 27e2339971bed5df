/** A word of the trade, what else it is called, and what it means here. */
export interface Term {
  readonly id: string;
  readonly term: string;
  /** Other words people use for it; searched, never shown as the first name. */
  readonly also: readonly string[];
  readonly means: string;
}

const t = (id: string, term: string, also: readonly string[], means: string): Term => ({
  id,
  term,
  also,
  means,
});

/** The words of the house and of the trade, by name. */
export const GLOSSARY: readonly Term[] = [
  t(
    '80-plus',
    '80 PLUS',
    ['efficiency', 'bronze', 'gold', 'platinum'],
    'A mark of how little a supply loses at 20, 50 and 100 % of its rating.',
  ),
  t(
    'adapter',
    'adapter',
    ['riser', 'converter', 'M.2 board'],
    'A piece that changes the plug: it fills a slot of the host, joins two shapes, or ends in a card slot.',
  ),
  t(
    'approval',
    'approval',
    ['authorize', 'trust', 'allow device'],
    'Before a tunnel carries PCIe the system may ask. Once is forgotten at a restart; always is kept.',
  ),
  t(
    'atx-3',
    'ATX 3.x',
    ['power supply standard'],
    'A supply standard whose larger models bear twice their rating for a tenth of a millisecond.',
  ),
  t(
    'blower',
    'blower',
    ['radial fan', 'turbo cooler'],
    'A cooler that blows most of its heat out at the bracket instead of into the box.',
  ),
  t(
    'board-power',
    'board power',
    ['TDP', 'TGP', 'TBP', 'wattage'],
    'What a card may draw in all while it works, from its slot and its plugs together.',
  ),
  t(
    'bottleneck',
    'bottleneck',
    ['pinch', 'weakest link'],
    'The hop that carries least. Only a better part there makes the chain faster.',
  ),
  t(
    'cable',
    'cable',
    ['lead', 'cord', 'link cable'],
    'What joins host port and dock. Watts on it say what it charges with, not how fast it is.',
  ),
  t(
    'card',
    'card',
    ['GPU', 'graphics card', 'video card', 'dGPU', 'accelerator'],
    'The graphics card that is attached from outside.',
  ),
  t(
    'chain',
    'chain',
    ['combination', 'build', 'rig'],
    'Host, port, cable, dock, card and screen, one after another. Its weakest hop sets the rate.',
  ),
  t(
    'compression',
    'display stream compression',
    ['DSC'],
    'A picture made about three times smaller on its cable, without a loss that is seen. Both ends must have it.',
  ),
  t(
    'contract',
    'charge contract',
    ['USB PD', 'power delivery', 'charging profile'],
    'What dock, cable and host agree on: the least of what each allows. It is not rounded to a level.',
  ),
  t(
    'controller-class',
    'controller class',
    ['link chip', 'bridge chip', 'chipset of the dock'],
    'What the link chip of a dock passes on at most. First-generation chips pass about 17.6 Gb/s.',
  ),
  t(
    'direct',
    'direct link',
    ['native PCIe', 'OCuLink', 'M.2 riser'],
    'PCIe lanes led out as they are. Faster than a tunnel; no power, no USB, and never plugged live.',
  ),
  t(
    'dock',
    'dock',
    ['enclosure', 'eGPU', 'eGPU box', 'external graphics box', 'open board'],
    'What the card sits in: an enclosure, an open board, or an all-in-one with the chip soldered in.',
  ),
  t(
    'driver',
    'driver',
    ['graphics driver'],
    'The software of the card. Versions are compared by their own scheme.',
  ),
  t(
    'dummy-plug',
    'dummy plug',
    ['headless adapter', 'HDMI dummy'],
    'A plug that pretends to be a screen, for systems that use a card only when one hangs on it.',
  ),
  t(
    'firmware',
    'firmware',
    ['BIOS', 'UEFI', 'NVM'],
    'The software inside host and dock. Updated first, on mains, without sleep.',
  ),
  t(
    'header-share',
    'header share',
    ['overhead', 'protocol overhead'],
    'The part of every packet that is address and check, not data.',
  ),
  t(
    'hop',
    'hop',
    ['link segment'],
    'One PCIe link or one tunnel of the chain; what all hops carry, the card gets.',
  ),
  t(
    'host',
    'host',
    ['laptop', 'notebook', 'mini PC', 'handheld', 'computer'],
    'The machine the card is attached to.',
  ),
  t(
    'internal-graphics',
    'internal graphics',
    ['iGPU', 'integrated graphics', 'APU graphics'],
    'The graphics in the processor. Switched off only with a way back.',
  ),
  t(
    'lanes',
    'lanes',
    ['x4', 'times four', 'link width'],
    'Pairs of wires side by side. Some hosts wire two where four fit.',
  ),
  t('link', 'link', ['connection', 'interface'], 'What carries PCIe between host and card.'),
  t(
    'link-overhead',
    'link overhead',
    ['toll', 'performance loss', 'eGPU penalty'],
    'The time the link costs each frame. Nearly the same at every resolution, so it weighs most on fast frames.',
  ),
  t(
    'lows',
    'lows',
    ['1 % low', '99th percentile', 'minimum frames'],
    'How slow the slowest frames are. Near 10 a second is unplayable whatever the average.',
  ),
  t(
    'measured',
    'measured, expected, seen, told',
    ['prediction', 'result'],
    'Expected is computed, measured is read, seen is a logged outcome, what others report is hearsay. They are never mixed.',
  ),
  t(
    'mobile-chip',
    'mobile chip',
    ['laptop GPU', 'MXM'],
    'A chip made for laptops that carries the number of a desktop card, with fewer units and less power.',
  ),
  t(
    'peak',
    'peak',
    ['transient', 'spike', 'excursion'],
    'A moment in which a card draws two or three times its board power. Weak supplies switch off.',
  ),
  t(
    'port',
    'port',
    ['socket', 'connector', 'jack'],
    'Where the cable goes into the host. The shape of the plug proves nothing; the mark beside it does.',
  ),
  t(
    'power-plug',
    'power plug',
    ['8-pin', '6-pin', '12VHPWR', '12V-2x6', '16-pin', 'PCIe power'],
    'What brings the card its power. Each socket needs a cable of its own; they run out before watts do.',
  ),
  t(
    'read-out',
    'read-out',
    ['link status', 'bus speed', 'LnkSta'],
    'Width and generation a system shows for a span. Only true under load.',
  ),
  t(
    'requirement',
    'requirement',
    ['compatibility note', 'known issue'],
    'Who needs which version at least or at most, from when until when, and what is seen when it is not met.',
  ),
  t(
    'route',
    'route',
    ['way', 'path', 'method'],
    'One way a host can reach a card: through which port or slot, and what that costs.',
  ),
  t(
    'screen',
    'screen',
    ['display', 'monitor', 'television', 'panel'],
    'Best put straight on the card. A picture that goes back to the host panel travels the link twice.',
  ),
  t(
    'security-level',
    'security level',
    ['Thunderbolt security'],
    'What the firmware lets a link do before anybody approves it. Some levels let no PCIe through at all.',
  ),
  t(
    'slot',
    'slot',
    ['PCIe slot', 'x16 slot', 'M.2'],
    'Where a card or drive sits. A slot looks like sixteen lanes; four are usually wired.',
  ),
  t(
    'supply',
    'supply',
    ['PSU', 'power supply', 'power brick', 'power adapter'],
    'What feeds dock and card. Watts and plugs both have to do.',
  ),
  t(
    'system',
    'system',
    ['operating system', 'OS', 'Windows', 'Linux', 'macOS'],
    'What runs on the host. A system may refuse a controller, a family of cards, or any card from outside.',
  ),
  t(
    'tunnel',
    'tunnel',
    ['Thunderbolt', 'USB4', 'PCIe tunnelling'],
    'PCIe carried inside a USB4 or Thunderbolt link, beside pictures and USB.',
  ),
  t(
    'usable',
    'usable rate',
    ['bandwidth', 'throughput', 'Gb/s'],
    'What is left for data after line encoding, packet headers and acknowledges. 8 Gb/s are 1 GB/s.',
  ),
];

/**
 * Terms of the glossary that hold some words.
 * @param words any words; all terms where they are empty
 * @returns terms by name, other names and meaning; those whose name begins with the words first
 */
export function findTerms(words: string): readonly Term[] {
  const w = words.trim().toLowerCase();
  if (w === '') return GLOSSARY;
  const names = (x: Term) => [x.term, ...x.also].map((n) => n.toLowerCase());
  const rank = (x: Term) =>
    names(x).some((n) => n.startsWith(w))
      ? 0
      : names(x).some((n) => n.includes(w))
        ? 1
        : x.means.toLowerCase().includes(w)
          ? 2
          : 3;
  return GLOSSARY.filter((x) => rank(x) < 3).sort((a, b) => rank(a) - rank(b));
}
