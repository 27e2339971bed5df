/** Things nobody meant to send, put where something else was. */
const WORDS = [
  ...[
    '',
    ' ',
    '\u0000',
    '\ud800',
    '\uFEFF',
    '\r\n',
    '\t',
    '"',
    "'",
    '""',
    '\\',
    ',',
    ';',
    '=1+1',
    '@x',
    '+',
    '-',
    '<script>x</script>',
    '&lt;',
    '&#0;',
    ']]>',
  ],
  ...[
    '../../etc/passwd',
    '%00',
    '%2e%2e%2f',
    "'; DROP TABLE parts; --",
    '${x}',
    '{{x}}',
    '__proto__',
    'constructor',
    'NaN',
    'Infinity',
    '-0',
  ],
  ...[
    '1e999',
    '-1e999',
    '9007199254740993',
    '1e-400',
    '0x10',
    '1,234',
    '1.2.3',
    '2026-02-30',
    '2026-13-01T99:00:00Z',
    'null',
    'true',
    '\u202e',
    '🜲',
  ],
];
const VALUES = [
  ...[
    null,
    true,
    false,
    0,
    -0,
    -1,
    0.1,
    1e308,
    -1e308,
    1e-308,
    Number.MAX_SAFE_INTEGER + 2,
    '',
    ' ',
    '\u0000',
    '\ud800',
    'x'.repeat(5000),
    [],
    {},
    [[]],
    [{}],
    { lo: 1, hi: 0 },
  ],
  ...[
    { $ne: 1 },
    { toString: 1 },
    { length: -1 },
    'toString',
    '1e999',
    '2026-02-30',
    '00000000-0000-0000-0000-000000000000',
    '__proto__',
  ],
];

/** A copy each time: what is put in is broken further, and must not change what comes after. */
const odd = (r) => structuredClone(r.of(VALUES));

function textOnce(text, r, other) {
  const at = r.int(0, text.length);
  const to = Math.min(text.length, at + r.int(0, 40));
  switch (r.int(0, 9)) {
    case 0:
      return text.slice(0, at) + r.of(WORDS) + text.slice(at);
    case 1:
      return text.slice(0, at) + text.slice(to);
    case 2:
      return text.slice(0, at) + text.slice(at, to).repeat(r.int(2, 30)) + text.slice(to);
    case 3:
      return text.slice(0, at);
    case 4:
      return text.slice(0, at) + String.fromCharCode(r.int(0, 0xffff)) + text.slice(at + 1);
    case 5: {
      const lines = text.split('\n');
      const a = r.int(0, lines.length - 1);
      const b = r.int(0, lines.length - 1);
      const line = lines[a];
      lines[a] = lines[b];
      lines[b] = line;
      return lines.join('\n');
    }
    case 6:
      return text.replace(/\d+/g, (d) => (r.next() < 0.2 ? r.of(WORDS) : d));
    case 7:
      return text.slice(0, at) + other.slice(r.int(0, other.length));
    case 8:
      return text.replaceAll(
        r.of(['\n', ',', '\t', ';', ':', '.', ' ', '"']),
        r.of(['\r', ';', ',', '', '\n', '"', '\u2028']),
      );
    default:
      return text + r.of(WORDS).repeat(r.int(1, 200));
  }
}

/** Every place in a value that can be changed, as the object that holds it and the key. */
function places(value, found = []) {
  if (value === null || typeof value !== 'object') return found;
  for (const key of Object.keys(value)) {
    found.push([value, key]);
    places(value[key], found);
  }
  return found;
}

function jsonOnce(value, r, other) {
  const all = places(value);
  if (all.length === 0) return odd(r);
  const [holder, key] = r.of(all);
  switch (r.int(0, 7)) {
    case 0:
      delete holder[key];
      break;
    case 1:
      // Defined, not set: a key called __proto__ is a key here, as it is in JSON.
      Object.defineProperty(holder, r.of(WORDS), {
        value: odd(r),
        enumerable: true,
        configurable: true,
        writable: true,
      });
      break;
    case 2: {
      let deep = odd(r);
      for (let i = r.int(1, 200); i > 0; i--) deep = r.next() < 0.5 ? [deep] : { a: deep };
      holder[key] = deep;
      break;
    }
    case 3: {
      const [from, k] = r.of(all);
      // A copy: a value that held itself could not be written down.
      holder[key] = structuredClone(from[k]);
      break;
    }
    case 4: {
      const theirs = places(other);
      if (theirs.length > 0) {
        const [from, k] = r.of(theirs);
        holder[key] = structuredClone(from[k]);
      }
      break;
    }
    case 5:
      if (Array.isArray(holder[key]))
        holder[key] = Array.from({ length: r.int(0, 60) }, () =>
          structuredClone(holder[key][0] ?? null),
        );
      else if (typeof holder[key] === 'number') holder[key] *= r.of([-1, 10, 1000, 1e-3, 1e12, 0]);
      else holder[key] = `${JSON.stringify(holder[key])}${r.of(WORDS)}`;
      break;
    default:
      holder[key] = odd(r);
  }
  return value;
}

/** One case: a good sample broken in one to six places. The same chance gives the same case. */
export function mutate(how, samples, r) {
  const sample = r.of(samples);
  const other = r.of(samples);
  const times = r.next() < 0.5 ? 1 : r.int(2, 6);
  // Now and then JSON is broken as text too: half of it, or a comma more.
  if (how === 'json' && r.next() < 0.85) {
    let value = JSON.parse(sample);
    const theirs = JSON.parse(other);
    for (let i = 0; i < times; i++) value = jsonOnce(value, r, theirs);
    return JSON.stringify(value) ?? 'undefined';
  }
  let text = sample;
  for (let i = 0; i < times; i++) text = textOnce(text, r, other).slice(0, 200_000);
  return how === 'bytes'
    ? [...text.slice(0, 2000)].map((c) => String.fromCharCode(c.charCodeAt(0) & 0xff)).join('')
    : text;
}
