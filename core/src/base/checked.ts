import * as z from 'zod';

/**
 * Checks a value against a schema, whatever it holds. The library compares lengths also of what is no text, and
 * throws over a length that is no number: such a value is refused like any other.
 * @param schema the schema
 * @param value anything
 * @returns what the schema makes of the value, or its issues
 */
export function checked<T extends z.ZodType>(
  schema: T,
  value: unknown,
): z.ZodSafeParseResult<z.output<T>> {
  try {
    return schema.safeParse(value);
  } catch {
    const message = 'holds a value that cannot be understood';
    return {
      success: false,
      error: new z.ZodError([{ code: 'custom', path: [], message, input: value }]) as z.ZodError<
        z.output<T>
      >,
    };
  }
}
