import type { CautionId, Tool } from '../steps/types';

/** Said before the act: the danger in the first words, and at the end whose word counts. */
export const CAUTION_TEXTS: Readonly<Record<CautionId, string>> = {
  mains:
    'Mains power can kill. Pull the mains cable and wait; a supply is never opened. Local codes and licensed people have the last word.',
  static:
    "Static kills parts unseen. Everything off, touch bare metal first, hold boards by their edges. The maker's manual has the last word.",
  battery:
    "A charged battery lies under most lids. No force, no metal tool near it; a dented cell can burn. The maker's manual has the last word.",
  'lid-fan':
    "A cable tears easily: one may run from the lid to the board. Lift a finger wide and look. The maker's manual has the last word.",
  conducts:
    "Liquid metal conducts. If the cooler carries it, leave the cooler alone: a drop on the board makes a short. The maker's manual has the last word.",
  cutting:
    'Cutting cannot be undone, and a battery may lie behind. No maker stands by it; think once more. Licensed repair shops have the last word.',
  'live-board':
    "A board lies open and live. Keep drinks, children and pets away; it can tip or short. The maker's manual has the last word.",
  'plug-home':
    'A loose plug can burn. Push each one until it clicks and look for a gap. The maker of the card has the last word.',
  'two-supplies':
    'Mixed power cables destroy cards. Cables of one supply never go to another, and two supplies never feed one card unless its maker says so.',
  'direct-off':
    "Plugged live it breaks. A direct PCIe cable goes in and out only with the host shut down and the supply of the dock off at its own switch, or its mains out where it has none. The maker's manual has the last word.",
  'looks-like-video':
    "Not a video cable. The cable of a one-lane adapter looks like one; in a video port it can destroy both ends. Mark it now. The maker's manual has the last word.",
  flash:
    "A broken update kills. Charger in, no sleep, cable untouched until it says it is done. The maker's guide has the last word.",
  repackaged:
    'It runs with full rights. Judge the source of a repackaged driver before you install it. The maker of card and dock has the last word.',
  'no-screen':
    "You may see nothing. With internal graphics off a silent card leaves no screen: try the way back first. The maker's manual has the last word.",
  'locked-out':
    "You may be locked out. Changed hardware can make encryption ask for its key: have it on paper. The maker's manual has the last word.",
  heavy:
    'A heavy card tears its slot. Support it before anything is moved. The maker of the dock has the last word.',
  hot: "Heat stops and burns. Keep vents free and surfaces off the lap; raise limits in small steps only. The maker's manual has the last word.",
  'unplug-live':
    "Pulled live it may freeze. Save first, eject, wait for the word that it may be removed. The maker's manual has the last word.",
};

export const TOOL_WORDS: Readonly<Record<Tool, string>> = {
  screwdriver: 'screwdriver that fits the screws',
  'plastic-pick': 'plastic pick',
  tape: 'tape',
  printer: 'printer or a photograph',
  stick: 'stick with the drivers',
  'second-machine': 'second machine',
  charger: "the host's own charger",
  'small-bags': 'small bags and a pen',
  torch: 'torch',
};
