/** One clear line and out: the person reads what to do, not a stack. */
export function stop(problem) {
  process.stderr.write(`ruddy-bridge: ${problem}\n`);
  process.exit(1);
}

export function say(line) {
  process.stdout.write(`${line}\n`);
}

const LEAST = [20, 19];

/** Refuse a Node that is too old before anything else runs. */
export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < LEAST[0] || (major === LEAST[0] && minor < LEAST[1]))
    stop(`this needs Node ${LEAST.join('.')} or newer; here is ${process.versions.node}`);
}
