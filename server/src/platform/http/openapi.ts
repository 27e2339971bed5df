import * as z from 'zod';
import { BYTES, type Route } from './route';

function jsonSchema(schema: z.ZodType, io: 'input' | 'output'): object {
  const made = z.toJSONSchema(schema, { io, unrepresentable: 'any', target: 'draft-2020-12' });
  delete made['$schema'];
  return made;
}

function parameters(schema: z.ZodType, place: 'path' | 'query'): object[] {
  const made = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return Object.entries(made.properties ?? {}).map(([name, s]) => ({
    name,
    in: place,
    required: place === 'path' || (made.required ?? []).includes(name),
    schema: s,
  }));
}

/** The same schema for each type a body may be sent as. */
function contents(types: readonly string[], schema: object): object {
  return Object.fromEntries(types.map((t) => [t, { schema }]));
}

/** The OpenAPI 3.1 document of a list of routes, made from their schemas. */
export function openApi(routes: readonly Route[], version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const r of routes) {
    const path = r.path.replace(/:(\w+)/g, '{$1}');
    const edit = r.method === 'patch' || r.method === 'put';
    const ifMatch = edit
      ? [
          {
            name: 'If-Match',
            in: 'header',
            required: true,
            schema: { type: 'string' },
            description: 'The revision edited, like "3".',
          },
        ]
      : [];
    (paths[path] ??= {})[r.method] = {
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
            [r.open ? 'text/event-stream' : 'application/json']: {
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
