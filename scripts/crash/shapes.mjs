/** Texts that make a reader work: each is made to a length in characters. Twenty-four ways in which files were broken on purpose. */
const of = (unit) => (n) => unit.repeat(Math.ceil(n / unit.length)).slice(0, n);
const numbered = (each) => (n) => {
  const parts = [];
  for (let i = 0, length = 0; length < n; i++) {
    const part = each(i);
    parts.push(part);
    length += part.length;
  }
  return parts.join('');
};

export const SHAPES = {
  commas: of(','),
  semicolons: of(';'),
  tabs: of('\t'),
  'line ends': of('\n'),
  'carriage returns': of('\r'),
  blanks: of(' '),
  quotes: of('"'),
  'an open quote': (n) => `"${of('a\n')(n)}`,
  letters: of('a'),
  digits: of('9'),
  'signs and points': of('-.'),
  backslashes: of('\\'),
  'escaped characters': of('\\u0041'),
  'less-than signs': of('<'),
  entities: of('&lt;'),
  'open elements': of('<a>'),
  'empty elements': of('<a/>'),
  comments: of('<!--'),
  attributes: (n) => `<a ${numbered((i) => `a${i}="1" `)(n)}/>`,
  'open lists': of('['),
  'open objects': of('{"a":'),
  'a long list': (n) => `[${of('0,')(n)}0]`,
  'many members': (n) => `{${numbered((i) => `"k${i}":0,`)(n)}"z":0}`,
  parentheses: of('(rev '),
};

/** The shape in the place of the first long text of a sample: inside a string of JSON, or in the middle of a text. */
export function inside(how, sample, shape) {
  if (how === 'json') {
    const at = /":"([^"\\]{3,})"/.exec(sample.slice(40));
    if (!at) return shape;
    const start = 40 + at.index + 3;
    const text = JSON.stringify(shape).slice(1, -1);
    return sample.slice(0, start) + text + sample.slice(start + at[1].length);
  }
  const middle = sample.indexOf('\n', sample.length >> 1);
  const at = middle < 0 ? sample.length >> 1 : middle;
  return sample.slice(0, at) + shape + sample.slice(at);
}
