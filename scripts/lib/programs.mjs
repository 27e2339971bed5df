import { quiet, which } from './run.mjs';
import { say, stop } from './say.mjs';

const PACKAGES = { chromium: 'chromium', lspci: 'pciutils', cvt: 'xcvt' };

/** Debian's programs that the tests and pictures need; as root they are installed, otherwise one line says how. */
export function testPrograms() {
  const missing = () => Object.keys(PACKAGES).filter((p) => !which(p));
  if (missing().length === 0) return;
  const packages = missing().map((p) => PACKAGES[p]);
  if (process.getuid?.() === 0 && which('apt-get')) {
    say(`Installing ${packages.join(', ')} from Debian …`);
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const install = () =>
      quiet('apt-get', ['install', '-y', '--no-install-recommends', ...packages], { env });
    if (install().code !== 0) {
      quiet('apt-get', ['update'], { env });
      install();
    }
  }
  if (missing().length > 0)
    stop(
      `${missing().join(', ')} missing. Run: sudo apt-get install -y --no-install-recommends ${missing()
        .map((p) => PACKAGES[p])
        .join(' ')}`,
    );
}
