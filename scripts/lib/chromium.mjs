import { which } from './run.mjs';
import { stop } from './say.mjs';

/** Flags for a headless browser without a network; --no-sandbox only where it cannot be had, as root. */
export const CHROMIUM_FLAGS = [
  ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--hide-scrollbars',
  // Dates as the tests and the pictures have them.
  '--accept-lang=en-GB',
  '--force-color-profile=srgb',
];

/** Debian's browser. */
export function chromium() {
  return (
    which('chromium') ??
    stop('Chromium is missing. Run: sudo apt-get install -y --no-install-recommends chromium')
  );
}
