import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { configSpace, type MadeDevice } from './config-space';

const hex = (n: number, digits: number) => `0x${n.toString(16).padStart(digits, '0')}\n`;

/**
 * Write made devices below `root` as a system's sysfs shows them, one folder a function, with exactly the files that `lspci` asks for.
 * Without rights only the first 64 bytes of configuration space can be read.
 */
export function writeSysfs(root: string, devices: readonly MadeDevice[], unprivileged = false): void {
  for (const d of devices) {
    const dir = join(root, 'devices', d.address);
    mkdirSync(dir, { recursive: true });
    const bytes = configSpace(d);
    writeFileSync(join(dir, 'config'), unprivileged ? bytes.subarray(0, 64) : bytes);
    writeFileSync(join(dir, 'vendor'), hex(d.vendor, 4));
    writeFileSync(join(dir, 'device'), hex(d.device, 4));
    writeFileSync(join(dir, 'class'), hex(d.classCode, 6));
    writeFileSync(join(dir, 'irq'), '16\n');
    writeFileSync(join(dir, 'resource'), '0x0000000000000000 0x0000000000000000 0x0000000000000000\n'.repeat(7));
  }
}
