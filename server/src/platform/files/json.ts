import { JSONParser, TokenType } from '@streamparser/json';
import { HttpProblem, notSaved } from '../http/problem';
import type { TextFile } from './text-file';

/** What one value of a JSON file may hold; each limit is looked at while it is read. */
export interface JsonLimits {
  readonly depth: number;
  /** Strings, numbers, names, brackets and marks between them. */
  readonly tokens: number;
  readonly characters: number;
}
export const JSON_LIMITS: JsonLimits = { depth: 100, tokens: 20_000_000, characters: 150_000_000 };

export interface JsonValue {
  /** Names from the top of the file: `['parts', 3]`. */
  readonly path: readonly (string | number)[];
  readonly value: unknown;
}

const OPENING: readonly TokenType[] = [TokenType.LEFT_BRACE, TokenType.LEFT_BRACKET];
const CLOSING: readonly TokenType[] = [TokenType.RIGHT_BRACE, TokenType.RIGHT_BRACKET];

/** Counts what is read and refuses what goes over a limit, before it is put together. */
class Meter {
  #depth = 0;
  #tokens = 0;
  #characters = 0;
  constructor(readonly limits: JsonLimits) {}

  add(token: TokenType, value: unknown): void {
    if (OPENING.includes(token)) this.#depth += 1;
    else if (CLOSING.includes(token)) this.#depth -= 1;
    this.#tokens += 1;
    if (typeof value === 'string') this.#characters += value.length;
    const { depth, tokens, characters } = this.limits;
    if (this.#depth > depth) throw notSaved(`The file nests deeper than ${depth} levels`);
    if (this.#tokens > tokens || this.#characters > characters)
      throw notSaved('One entry of the file holds more than can be read; send it in parts');
  }

  /** A value is whole and handed over. */
  fresh(): void {
    this.#tokens = 0;
    this.#characters = 0;
  }
}

/** The character a message of the parser is about: `Unexpected RIGHT_BRACE ("}") in state COMMA`. */
const UNEXPECTED = /^Unexpected (?:\w+ \()?(".{1,12}")/;

/** The parser's refusal in words for a person, with the place of the last thing that was good. */
function notJson(error: Error, after: number): HttpProblem {
  const odd = UNEXPECTED.exec(error.message)?.[1];
  const what = odd ? `unexpected ${odd}` : 'it ends in the middle';
  return notSaved(`Not JSON: ${what} after character ${after}`);
}

/**
 * Values of a JSON file as they are read; what was handed over is not kept.
 * @param file to read
 * @param paths which values, like `$.parts.*`; `$.*` is each member at the top that no other path takes apart
 * @param limits of one value
 * @returns the values in the order of the file
 * @throws HttpProblem 422 where it is not JSON or goes over a limit
 */
export async function* jsonValues(
  file: TextFile,
  paths: readonly string[],
  limits: JsonLimits = JSON_LIMITS,
): AsyncGenerator<JsonValue> {
  const parser = new JSONParser({ paths: [...paths], keepStack: false });
  const meter = new Meter(limits);
  const ready: JsonValue[] = [];
  let failed: Error | null = null;
  let after = 0;
  parser.onToken = ({ token, value, offset }) => {
    after = offset + 1;
    meter.add(token, value);
  };
  parser.onValue = ({ value, key, stack }) => {
    const above = stack.slice(1).map((s) => s.key as string | number);
    ready.push({ path: [...above, key as string | number], value });
    meter.fresh();
  };
  parser.onError = (error) => {
    failed ??= error;
  };
  const raise = () => {
    if (failed !== null) throw failed instanceof HttpProblem ? failed : notJson(failed, after);
  };
  let empty = true;
  for await (const piece of file()) {
    parser.write(empty ? piece.replace(/^\uFEFF/, '') : piece);
    empty = empty && piece.trim() === '';
    raise();
    yield* ready.splice(0);
  }
  if (empty) throw notSaved('The file is empty');
  if (!parser.isEnded) parser.end();
  raise();
  yield* ready.splice(0);
}
