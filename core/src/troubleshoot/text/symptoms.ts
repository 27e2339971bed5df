import type { CauseId, SymptomId } from '../../base';

/** What a person sees, in words to choose from. */
export const SYMPTOM_WORDS: Readonly<Record<SymptomId, string>> = {
  'crash-on-plug': 'The host crashed on plugging in',
  'nothing-listed': 'Nothing is listed',
  'router-no-card': 'The dock is listed, the card is not',
  'not-at-start': 'Not seen at start, seen when plugged later',
  'seen-then-lost': 'It was there, then it was gone',
  'error-no-driver': 'Listed with an error, or without a driver',
  'no-picture': 'No picture',
  'low-copy': 'The copy rate is low',
  'narrow-slow': 'The bus shows too few lanes or too slow a rate',
  'router-slow': 'The router runs at half rate or on one lane',
  'errors-rise': 'Error counters rise',
  'drops-under-load': 'It drops or the dock restarts under load',
  'freeze-under-load': 'The host freezes under load',
  'flat-frames': 'The same frames at every resolution',
  'load-without-watts': 'Load "100 %", but few watts',
  'memory-clock-half': 'Clocks stuck low',
  'regular-hitch': 'A hitch every few seconds',
  'poor-lows': 'A good average with poor lows',
  'textures-collapse': 'It collapses only at high textures',
  'desktop-stutter': 'The desktop stutters',
  'bigger-slower': 'No faster than before, or slower',
  'slower-than-inside': 'Slower than the graphics inside',
  'slow-on-panel': "Slow only on the host's panel",
  'wrong-card': 'A program uses the wrong card',
  'small-window': 'Wrong resolution or a small window',
  'recovery-key-asked': 'The recovery key is asked for',
  'handheld-hot': 'Host hot and slow',
  'worked-before': 'It worked before an update',
  'not-back': 'Not back after sleep or undocking',
  'battery-falls': 'The battery falls while it is attached',
  'title-refuses': 'The title does not start',
  'no-lamp': 'No lamp, no fan',
  'does-not-fit': 'It does not fit, or does not click',
  'update-stuck': 'The update does not end',
  'host-dead': 'The host does not start',
};

/** A cause and what helps. Common practice, no published source. */
export const CAUSE_WORDS: Readonly<Record<CauseId, { what: string; help: string }>> = {
  'dock-firmware': {
    what: 'Dock firmware too old',
    help: "Compare its version with the maker's newest and update before the next plug.",
  },
  'host-firmware': {
    what: 'Firmware of host or link controller too old',
    help: 'Read the version in the firmware setup; update it on mains.',
  },
  order: {
    what: 'This host wants another order',
    help: 'Start a new attempt with everything off first; plug after the start if that fails.',
  },
  'direct-live': {
    what: 'A direct link was plugged live, or its dock was off at start',
    help: 'Everything off, mains out, cable, dock on, host on. It is never plugged live.',
  },
  'left-over-driver': {
    what: 'Something of an earlier driver is left',
    help: 'Clean it out in the safe start of the system, then install the one driver.',
  },
  'look-alike-port': {
    what: 'The look-alike port',
    help: 'Read the mark beside the port, then in the manual, and move the cable.',
  },
  'not-approved': {
    what: 'The dock is not approved, or only once',
    help: 'Approve it "always" in the list of the link.',
  },
  'no-tunnelling': {
    what: 'PCIe tunnelling is off or not there',
    help: 'Look in the firmware setup for the security level and for tunnelling.',
  },
  'link-software': {
    what: 'Link software is missing',
    help: "Install the link's own software or service, then look at its list again.",
  },
  unsupported: {
    what: 'This system or controller revision is not supported',
    help: "Read the makers' lists of what they support; another build or another port may serve.",
  },
  'no-compatibility': {
    what: 'The USB4 port does not speak Thunderbolt 3',
    help: 'Read the manual of the host; only a dock with USB4 helps.',
  },
  'charge-contract': {
    what: "The charge contract is below the host's draw",
    help: "Bring the host's own charger, or a dock that charges with more.",
  },
  'cable-charges': {
    what: 'The cable carries charge or USB only',
    help: 'Take one marked with the rate of the link.',
  },
  'cable-class': {
    what: 'The cable is too long or of a low class',
    help: 'Take a short one marked with the rate, and read the router again.',
  },
  'own-cap': {
    what: 'No fault: controller, slot or link can do no more',
    help: 'Compare with what the plan expects here: it may be right.',
  },
  'dock-off': {
    what: 'The dock is not on: switch, button, coupling or sleep',
    help: 'Look at switch, mains cable and lamp before the host starts; note what each button does.',
  },
  'card-memory': {
    what: "The card's memory overflows",
    help: 'Textures a step down; watch the memory in use.',
  },
  'memory-window': {
    what: 'The memory window of the card is small',
    help: 'Switch the large window on in the firmware setup, where maker and card allow it.',
  },
  'panel-return': {
    what: "The picture goes back to the host's panel",
    help: 'Screen on the card itself, and choose it as the main one.',
  },
  capped: {
    what: 'A cap or sync holds the frames',
    help: 'Switch cap and sync off in title and driver, then run again.',
  },
  'none-of-these': {
    what: 'None of these',
    help: 'Write down what was tried and keep it unsolved; ask with the sheet of questions.',
  },
  'dock-defective': {
    what: 'The dock is defective',
    help: 'Try dock, cable and card on another host; if the fault goes with them, try another dock.',
  },
  'card-defective': {
    what: 'The card is defective',
    help: 'With everything off: another card here, or this one in a desktop.',
  },
  'driver-clamp': {
    what: 'The driver holds the slot at the slowest rate',
    help: 'Read under load again; then another driver version.',
  },
  'direct-cable': {
    what: 'Direct cable or riser without margin',
    help: 'Everything off, then a shorter cable or fewer joints.',
  },
  'plug-not-home': {
    what: 'A plug is not home, worn or dirty',
    help: 'With everything off: out, look at it, in again until it stops.',
  },
  'two-lanes': {
    what: 'The host wires two lanes',
    help: 'Read the span of the port controller; if it shows ×2 the host is made so.',
  },
  'shared-link': {
    what: 'Hub, LAN or drive share the link',
    help: 'Unplug what hangs on the dock and read again.',
  },
  resources: {
    what: 'Not enough address space for the card',
    help: 'Another port or slot, or a larger resource window in the firmware setup.',
  },
  'driver-range': {
    what: 'Driver too new or too old for this card or adapter',
    help: 'Take the version its maker allows and note it.',
  },
  'mobile-chip': {
    what: 'A mobile chip that the standard driver refuses',
    help: 'A repackaged driver may serve; it runs with full rights, so judge its source.',
  },
  'idle-reading': { what: 'Read while idle', help: 'Put the card under load and read again.' },
  'card-seat': {
    what: 'The card is not seated',
    help: 'Mains out, wait, card out and in again until the latch clicks.',
  },
  supply: {
    what: 'The supply is too small or trips on peaks',
    help: 'Read rated and drawn watts on Plan; limit the card for a test.',
  },
  'power-cables': {
    what: 'A power cable is missing, shared or not home',
    help: 'Mains out; one cable a socket, of this supply, until it clicks.',
  },
  processor: {
    what: 'The processor limits',
    help: 'Change one thing only; a swap tells it from the link.',
  },
  'power-state': {
    what: 'The card stays in a low power state',
    help: 'Power setting of the driver, then a restart.',
  },
  title: { what: 'This title on such links', help: 'Try another title, and log this one.' },
  capture: { what: 'A capture or another program runs beside', help: 'Stop it and run again.' },
  'power-saving': {
    what: 'Sleep or power saving',
    help: 'Switch link power saving and sleep off while docked.',
  },
  'both-graphics': {
    what: 'Internal and outside graphics are both active',
    help: 'Internal graphics off, with a way back prepared.',
  },
  'wrong-device': {
    what: 'The program picked another device',
    help: 'Choose the card per program and note how it was forced.',
  },
  'other-screen': {
    what: 'Settings kept from the other screen',
    help: 'Reset them once; keep a profile for each state.',
  },
  encryption: {
    what: 'Encryption sees changed hardware',
    help: 'Type the key from paper; do not switch encryption off.',
  },
  'screen-input': {
    what: 'Wrong input, output or mode of the screen',
    help: 'Choose the input, try another output of the card, then a lower mode.',
  },
  heat: { what: 'Too hot', help: 'Free the vents, a stand, a lower limit.' },
  'power-mode': {
    what: 'Power or heat limit of the host',
    help: 'Performance mode; compare the sustained figure with the one noted.',
  },
  update: {
    what: 'An update changed something',
    help: 'Compare the versions with the last known good and go back one.',
  },
  'too-big': {
    what: 'The part is larger than its room',
    help: 'Compare length, height and slots on Plan.',
  },
  'flash-broken': {
    what: 'The update broke off',
    help: "Leave power on and follow the maker's part on broken updates.",
  },
  ribbon: {
    what: 'Ribbon, fan or battery plug not in place',
    help: 'Open again with charger out, look at every plug you touched.',
  },
  'boot-drive': {
    what: 'It starts from a drive that is gone',
    help: 'Set the start order in the firmware setup to the drive that is left.',
  },
};
