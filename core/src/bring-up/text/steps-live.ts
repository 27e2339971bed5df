import { partName } from '../../chain';
import { WORK } from '../../parts';
import type { StepFacts } from '../steps/types';
import { cardOf, dockOf, hostOf, type WordsOf } from './steps-before';

const plugName = { displayport: 'DisplayPort', hdmi: 'HDMI' } as const;

function screens(f: StepFacts): string {
  const list = f.chain.picture.map(
    (p) =>
      `${partName(p.screen)} by ${plugName[p.plug]} on the ${p.by === 'card' ? 'card' : 'dock'}`,
  );
  return list.length > 0 ? list.join('; ') : 'The screen on the card';
}

function uses(f: StepFacts): string {
  const list = f.chain.uses.map((u) => WORK[u.work].toLowerCase());
  return list.length > 0 ? list.join(', ') : 'what it is wanted for';
}

const devices = (f: StepFacts) =>
  f.chain.uses.some((u) => u.work === 'editing' || u.work === 'compute' || u.work === 'render');

export const LIVE_WORDS: WordsOf<
  | 'screen-path'
  | 'panel-path'
  | 'power-limits'
  | 'shared-memory'
  | 'internal-off'
  | 'programs'
  | 'first-run'
  | 'profiles'
  | 'buttons'
  | 'sleep-wake'
  | 'docked-check'
  | 'log-entry'
  | 'close-programs'
  | 'internal-back'
  | 'eject'
  | 'host-stop'
  | 'dock-off'
  | 'unplug-cable'
  | 'memory-back'
  | 'undocked-check'
> = {
  'screen-path': (f) => ({
    title: 'Screen on the card',
    do: [
      `${screens(f)}, straight, not through a hub. Choose it as the main screen and set resolution and refresh rate.`,
    ],
    see: 'A picture at the full resolution and rate of the screen.',
    ifNot: 'Choose the input at the screen, try another output of the card, then a lower mode.',
    means: 'A picture that runs back over the link costs frames and hides what the card can do.',
  }),
  'panel-path': (f) => ({
    title: 'Picture back to the panel',
    do: [
      `The picture of the card goes back over the link to the panel of ${hostOf(f)}. Expect a link overhead in every frame.`,
      'Some systems want a dummy plug on the card before they let it work.',
    ],
    see: 'Programs draw with the card and show on the panel.',
    ifNot: 'Put a screen on the card once, to tell the path from the card.',
    means: 'The panel hangs on internal graphics; a program may stay on those.',
  }),
  'power-limits': (f) => ({
    title: 'Power mode and limits',
    do:
      f.chain.host?.form === 'handheld'
        ? [
            'Docked, a handheld has three limits: sustained, two minutes, peak. Note all three with what they were, and raise the sustained one within what the maker allows.',
          ]
        : [
            `Performance mode on for ${hostOf(f)}, sustained power as high as the maker allows. Note the figures docked and undocked.`,
            ...(f.chain.host?.form === 'laptop'
              ? [
                  'Lid: open gives an open-air card and the host more air; closed may suit a blower. Try both and note it.',
                ]
              : []),
          ],
    see: 'Under load the host holds the sustained figure and stays below its temperature limit.',
    ifNot: 'Put the old figures back, give it air, and go up in small steps.',
    means: 'A host that throttles looks like a slow link.',
  }),
  'shared-memory': () => ({
    title: 'Shared graphics memory',
    do: [
      'With the card attached internal graphics need little: lower what is shared in the firmware setup (8 GB to 1 GB is usual practice). Undocked it is raised again.',
      'Note both figures.',
    ],
    see: 'The system has more memory free after the restart.',
    ifNot: 'Put the old figure back when it does not start or the desktop stutters.',
    means: 'Memory held for graphics that draw nothing is missing elsewhere.',
  }),
  'internal-off': () => ({
    title: 'Internal graphics off',
    do: [
      'With the screen on the card and the way back tried: switch internal graphics off, in the system first, not in the firmware setup.',
    ],
    see: 'The picture stays, and programs find one card.',
    ifNot: 'Dark: wait a minute, then take the way back and switch them on again.',
    means:
      'There is no screen but the one on the card from here on. Switch them on again before you undock.',
  }),
  programs: (f) => ({
    title: 'Each program on the right card',
    do: [
      `For ${uses(f)}: choose the card per program in the system, and look which one it really uses.`,
      ...(devices(f)
        ? ['Programs that compute have a list of devices of their own: choose the card there too.']
        : []),
    ],
    see: `The load shows on ${cardOf(f)}, not inside the host.`,
    ifNot:
      "Force it in the driver's panel, in the program, or by a start option, and note which one did it.",
    means: 'Several graphics chips confuse programs; drawing in software is the slowest of all.',
  }),
  'first-run': (f) => ({
    title: 'First run',
    do: [
      `Run ${uses(f)} for a quarter of an hour. Watch load, watts and memory clock of the card together.`,
    ],
    see: 'It runs through; watts rise with the load and the memory clock is not at half.',
    ifNot: '"100 % load" at few watts: the meter misleads. Look at processor and link first.',
    means: 'Flat frames at every resolution: processor or link. Only a swap tells them apart.',
  }),
  profiles: () => ({
    title: 'Docked and undocked settings',
    do: [
      'Note resolution, scaling and limits for both states, so that what comes back wrong is put right in a minute.',
    ],
    see: 'Both columns hold what you would set again.',
    ifNot: 'Leave open what is the same in both.',
    means: 'Settings come back from the other screen, sooner or later.',
  }),
  buttons: (f) => ({
    title: 'What each button does',
    do:
      f.kind === 'direct'
        ? [
            'On a direct link only two are safe to try: shut the host down, start it again. Note what the dock does. Plug and unplug nothing live.',
          ]
        : [
            'Save first. Try the buttons one by one, host on and off, and note what the other side does.',
          ],
    see: 'A line for every button that was tried.',
    ifNot: 'A crash is an answer too: note it and leave that button alone.',
    means: `Whether ${hostOf(f)} drives ${dockOf(f)} decides which orders are possible.`,
  }),
  'sleep-wake': (f) => ({
    title: 'Sleep and wake once',
    do: ['Save, let the host sleep for a minute, wake it.'],
    see: `${cardOf(f)} is listed and the picture is back.`,
    ifNot: 'Switch sleep off while docked and note it.',
    means: 'Many chains do not survive sleep; then sleep is off while docked.',
  }),
  'docked-check': () => ({
    title: 'What came back wrong',
    do: [
      'Look at resolution, scaling, windows, sound, and which card programs use. Choose below what was wrong; nothing chosen means all was right.',
    ],
    see: 'As it was when it was docked last.',
    ifNot: 'Set it again from the docked column.',
    means: 'What comes back wrong each time is worth a setting of its own.',
  }),
  'log-entry': () => ({
    title: 'Write it into the log',
    do: [`Say how it went. The entry keeps the chain, its versions and the order as they are now.`],
    see: 'The entry stands in the record and counts in the log.',
    ifNot: 'Works with care, or unreliable, is an answer.',
    means: 'A recommendation without a date and versions is worth nothing.',
  }),
  'close-programs': (f) => ({
    title: 'Close what uses the card',
    do: [
      `Save. Close every program that draws or computes on ${cardOf(f)}, and files on a drive at the dock.`,
    ],
    see: 'The card shows no load and the drive can be ejected.',
    ifNot: 'Look in the list of processes for what still holds the card.',
    means: 'A program that loses its card crashes, and may take the system with it.',
  }),
  'internal-back': () => ({
    title: 'Internal graphics on again',
    do: [
      'Switch internal graphics on and look that the panel shows a picture, before the cable goes.',
    ],
    see: 'The panel shows the desktop.',
    ifNot: 'Do not unplug. Take the way back you prepared.',
    means: 'Undocked with internal graphics off there is no screen.',
  }),
  eject: () => ({
    title: 'Eject the dock',
    do: [
      'Eject the card or the dock where the system offers it, and wait until it says that it may be removed.',
    ],
    see: 'The card has left the list of devices.',
    ifNot: 'Something still uses it; shut the host down instead.',
    means: 'Pulled live, this chain may freeze the host.',
  }),
  'host-stop': (f) => ({
    title: 'Host off first',
    do: [
      f.kind === 'direct'
        ? `Shut ${hostOf(f)} down. A direct link is never pulled live.`
        : `Shut ${hostOf(f)} down: this chain came up with it off, and leaves the same way.`,
    ],
    see: 'Its lamp and fans are off.',
    ifNot: 'Hold the power button only when it hangs.',
    means: 'A bus that loses its card while it runs can take the system with it.',
  }),
  'dock-off': (f) => ({
    title: 'Dock off',
    do: [`Switch ${f.chain.dock ? dockOf(f) : 'the supply of the card'} off.`],
    see: 'No lamp, no fan.',
    ifNot: 'Pull its mains cable.',
    means: 'A plug pulled from a live board can spark across its contacts.',
  }),
  'unplug-cable': () => ({
    title: 'Cable out',
    do: ['Pull the plug by its body, straight. Hang it where it does not fall.'],
    see: 'The host runs by itself, or starts by itself.',
    ifNot: 'Dark: start it again undocked.',
    means: 'A worn or bent plug is the start of many odd faults.',
  }),
  'memory-back': (f) => {
    const gb = f.docked.undocked.sharedGB;
    return {
      title: 'Shared memory up again',
      do: [
        `Raise what internal graphics may have${gb === null ? '' : ` to ${gb} GB, as noted`} in the firmware setup.`,
      ],
      see: 'The system names the figure after the restart.',
      ifNot: 'Put back what it was.',
      means: 'Undocked, internal graphics draw alone and want their memory.',
    };
  },
  'undocked-check': () => ({
    title: 'What came back wrong',
    do: [
      'Look at resolution, scaling, windows, sound and power mode. Choose below what was wrong; nothing chosen means all was right.',
    ],
    see: 'As it was when it was undocked last.',
    ifNot: 'Set it again from the undocked column.',
    means: 'What comes back wrong each time is worth a setting of its own.',
  }),
};
