/** A test in words: what to do, how, and its two answers. */
export interface TestWords {
  readonly what: string;
  readonly how: string;
  readonly yes: string;
  readonly no: string;
}
export const testWords = (what: string, how: string, yes: string, no: string): TestWords => ({
  what,
  how,
  yes,
  no,
});
const t = testWords;

/** Tests of port, cable, link and dock. */
export const LINK_TEST_WORDS = {
  'port-mark': t(
    'Read the mark beside the port, then the manual',
    'Look for the mark of the link beside the plug in use. The shape of the plug proves nothing.',
    'Not a port for this link',
    'It is the right port',
  ),
  'router-listed': t(
    "Look for the dock's router in the link's list",
    "Open the list of the link, or read the host: the dock's router must stand there by its name.",
    'No router listed',
    'The router is listed',
  ),
  approved: t(
    "Read the dock's approval",
    'In the list of the link: 0 or "this session only" is the fault, "always" is right.',
    'Not approved, or once only',
    'Approved always',
  ),
  security: t(
    'Read the security level of the link',
    'In the list of the link or in the firmware setup: levels without PCIe let no card through.',
    'It forbids PCIe',
    'PCIe is allowed',
  ),
  'router-speed': t(
    "Read the router's rate and lanes",
    'Rate times lanes, both ways, against what both ends can do.',
    'Half rate or one lane',
    'Full rate and lanes',
  ),
  'short-cable': t(
    'Swap in a short, certified cable',
    'Shorter than 0.8 m and marked with the rate of the link. Then look at the same thing again.',
    'It is cured',
    'No change',
  ),
  'other-port': t(
    'Move the cable to another port',
    'Best one on the other side of the host. A direct cable only with everything off.',
    'It is cured',
    'No change',
  ),
  'all-off': t(
    'Start over with everything off',
    'Host and dock off, mains out, ten seconds; cable in, dock on, wait for its lamp, host on.',
    'It is cured',
    'No change',
  ),
  'plug-later': t(
    'Plug in after the start',
    'Start the host without the dock, sign in, save your work, then plug. Never on a direct link.',
    'It is cured',
    'No change',
  ),
  'dock-dark': t(
    'Look at the lamp and fan of the dock',
    'Mains switch on, host on, cable in. Look and listen for ten seconds.',
    'Dark and still',
    'Lamp or fan on',
  ),
  'other-host': t(
    'Try dock, cable and card on another host',
    'Another host with the same kind of port. A direct link only with everything off.',
    'The same fault there',
    'Works there',
  ),
  'dock-version': t(
    "Compare the dock's firmware with the newest",
    "Read the version in the list of the link or the maker's tool, and the one this host asks for.",
    'Older than required',
    'New enough',
  ),
  'host-version': t(
    'Compare firmware of host and link controller',
    "Read both in the firmware setup, and the maker's list of changes.",
    'Older than required',
    'New enough',
  ),
  'hub-off': t(
    'Unplug hub, LAN and drives from the dock',
    'Everything but card and link. Then look at the same thing again.',
    'It is better',
    'No change',
  ),
  'plug-seen': t(
    'Pull every plug, look at it, push it home',
    'Save and eject first; a direct link with everything off. Look for dirt, wear and a gap.',
    'One was not home, and it is cured',
    'All were home',
  ),
  'approve-anew': t(
    'Take the dock off the list and approve it "always"',
    'Forget it in the list of the link, plug anew, approve with the rights of the keeper.',
    'It is cured, and holds',
    'No change',
  ),
  'link-software': t(
    'Look for the software of the link',
    "The service or app that keeps the link's list must be there and running.",
    'It is missing',
    'It runs',
  ),
  compatibility: t(
    'Look up whether the port speaks Thunderbolt 3',
    'In the manual of the host: USB4 may leave it out.',
    'It does not',
    'It does',
  ),
  'two-lane-span': t(
    'Read the width of the port controller',
    'Under load: the real span above the controller shows ×2, or the manual says two lanes.',
    'Two lanes',
    'Four lanes',
  ),
  contract: t(
    'Read the charge contract',
    'Watts agreed at the plug against what the host takes under load.',
    'Below what the host takes',
    'Enough',
  ),
  'short-direct': t(
    'Shorten the direct path, or one generation lower',
    'Everything off. A shorter cable, fewer joints, or the slot set one generation lower.',
    'It runs clean',
    'No change',
  ),
  'plug-partner': t(
    'Does the plug know a partner?',
    'In the list of USB-C plugs: the one with the cable must show somebody at the other end.',
    'Nobody at the other end',
    'A partner is known',
  ),
  bridges: t(
    "Look for the dock's bridges in the bus tree",
    'Below the port there must be a bridge pair and the downstream port of the slot.',
    'No bridges there',
    'The bridges are there',
  ),
  'bare-dock': t(
    'Start the dock without card and host',
    'Mains out, card out, nothing plugged; then on by its switch. Look at lamp and fan.',
    'Still dead, or still broken',
    'It comes on',
  ),
  'update-tool': t(
    "Ask the maker's update tool",
    'It says whether the dock waits in its recovery mode. Do not begin another update yet.',
    'In recovery, or not found',
    'It reads a version',
  ),
  'support-list': t(
    "Look the chain up in the makers' support lists",
    'System build, controller revision and card, on the pages of dock and host.',
    'A list says no',
    'Nothing against it',
  ),
} as const;
