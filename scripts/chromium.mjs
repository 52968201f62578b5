/** Finds Debian's Chromium for the browser tests, and installs it where that is possible. */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

/** The one without windows first: it takes a quarter less of the processor. */
const PLACES = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium', '/usr/bin/chromium-browser'];
const PACKAGES = ['chromium-headless-shell', 'chromium'];

/** Path of the installed Chromium, or undefined. `CHROMIUM` takes precedence. */
export function chromiumPath() {
  return [process.env.CHROMIUM, ...PLACES].find((path) => path && existsSync(path));
}

/** True once Chromium is there; says what to do where it cannot be installed. */
export function ensureChromium() {
  if (chromiumPath()) return true;
  const isRoot = process.getuid?.() === 0;
  if (isRoot && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium from Debian’s packages…');
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    spawnSync('apt-get', ['update', '-qq'], { stdio: 'inherit', env });
    for (const name of PACKAGES) {
      spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], {
        stdio: 'inherit',
        env,
      });
      if (chromiumPath()) return true;
    }
  }
  console.error(
    'The browser tests need Chromium. Install it as root (apt-get install chromium), or set CHROMIUM to its path.',
  );
  return false;
}
