import * as z from 'zod';
import { BYTES, type Route } from './route';

function jsonSchema(schema: z.ZodType, io: 'input' | 'output'): object {
  const made = z.toJSONSchema(schema, { io, unrepresentable: 'any', target: 'draft-2020-12' });
  delete made['$schema'];
  return made;
}

function parameters(schema: z.ZodType | undefined, place: 'path' | 'query'): object[] {
  if (!schema) return [];
  const made = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return Object.entries(made.properties ?? {}).map(([name, s]) => ({
    name,
    in: place,
    required: place === 'path' || (made.required ?? []).includes(name),
    schema: s,
  }));
}

/** How an answer that stays open is sent. */
const MEDIA = { events: 'text/event-stream', bytes: BYTES } as const;

/** The same schema for each type a body may be sent as. */
function contents(types: readonly string[], schema: object): object {
  return Object.fromEntries(types.map((t) => [t, { schema }]));
}

/** The OpenAPI 3.1 document of a list of routes, made from their schemas. */
export function openApi(routes: readonly Route[], version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const { method, path: pattern, contract: r } of routes) {
    const path = pattern.replace(/:(\w+)/g, '{$1}');
    const ifMatch = r.revision
      ? [
          {
            name: 'If-Match',
            in: 'header',
            required: r.revision === 'required',
            schema: { type: 'string' },
            description: 'The revision edited, like "3".',
          },
        ]
      : [];
    (paths[path] ??= {})[method.toLowerCase()] = {
      summary: r.summary,
      'x-role': r.role,
      parameters: [...parameters(r.params, 'path'), ...parameters(r.query, 'query'), ...ifMatch],
      ...(r.body && {
        requestBody: {
          required: true,
          content: r.bytes
            ? contents([BYTES], { type: 'string', format: 'binary' })
            : contents(r.text ?? ['application/json'], jsonSchema(r.body, 'input')),
        },
      }),
      responses: {
        '200': {
          description: 'OK',
          content: {
            [r.sends ? MEDIA[r.sends] : 'application/json']: {
              schema: jsonSchema(r.response, 'output'),
            },
          },
        },
        default: {
          description: 'Problem details (RFC 9457)',
          content: { 'application/problem+json': { schema: { type: 'object' } } },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Ruddy Bridge', version, license: { name: 'MIT', identifier: 'MIT' } },
    paths,
  };
}
