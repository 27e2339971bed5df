import { describe, expect, it } from 'vitest';
import * as z from 'zod';
import { byId, type CallOf, contracts, type RequestOf } from '@ruddy/core/base/contract';
import { ROUTES } from '../src/app';
import { implement } from '../src/platform/http/route';

const name = z.strictObject({ name: z.string() });
const things = contracts({
  'GET /api/things': {
    summary: 'Things',
    role: 'reader',
    query: z.strictObject({ limit: z.coerce.number().default(5) }),
    response: z.object({ items: z.array(z.string()) }),
  },
  'PATCH /api/things/:id': {
    summary: 'Change a thing',
    role: 'member',
    params: byId,
    body: name,
    response: name,
    revision: 'required',
  },
});
type Change = (typeof things)['PATCH /api/things/:id'];
const request = (r: RequestOf<Change>) => r;

describe('contracts', () => {
  it('every endpoint is mounted once and says what it is for', () => {
    const keys = ROUTES.map((r) => `${r.method} ${r.path}`);
    expect(keys).toHaveLength(new Set(keys).size);
    expect(ROUTES.length).toBeGreaterThan(150);
    for (const { contract } of ROUTES) expect(contract.summary).toMatch(/^[A-Z].{5,}/);
  });

  it('paths whose names are not their params do not compile', () => {
    const common = { summary: 'x', role: 'reader', response: name } as const;
    // @ts-expect-error the params of :id are missing
    const missing = contracts({ 'GET /api/x/:id': common });
    // @ts-expect-error the path has no :id
    const extra = contracts({ 'GET /api/x': { ...common, params: byId } });
    // @ts-expect-error the path has another name
    const other = contracts({ 'GET /api/x/:name': { ...common, params: byId } });
    expect([missing, extra, other]).toHaveLength(3);
  });

  it('a request without a part, or with another, does not compile', () => {
    const whole = request({ params: { id: 'a' }, body: { name: 'b' }, revision: 3 });
    // @ts-expect-error the revision is missing
    const unrevised = request({ params: { id: 'a' }, body: { name: 'b' } });
    // @ts-expect-error the body is missing
    const bodiless = request({ params: { id: 'a' }, revision: 3 });
    // @ts-expect-error the body has no such field
    const wrong = request({ params: { id: 'a' }, body: { title: 'b' }, revision: 3 });
    const call = { params: { id: 'a' }, query: {}, body: { name: 'b' }, revision: 3 };
    expect([whole, unrevised, bodiless, wrong, call satisfies CallOf<Change>]).toHaveLength(5);
  });

  it('missing, extra and wrongly answering handlers do not compile', () => {
    const list = () => Promise.resolve({ body: { items: ['a'] } });
    const change = () => Promise.resolve({ body: { name: 'a' } });
    const whole = implement(things, { 'GET /api/things': list, 'PATCH /api/things/:id': change });
    // @ts-expect-error the change has no handler
    const few = implement(things, { 'GET /api/things': list });
    const many = implement(things, {
      'GET /api/things': list,
      'PATCH /api/things/:id': change,
      // @ts-expect-error no contract has this key
      'GET /api/other': list,
    });
    // @ts-expect-error a list is not a thing
    const wrong = implement(things, { 'GET /api/things': list, 'PATCH /api/things/:id': list });
    expect([whole, few, many, wrong].map((r) => r.length)).toEqual([2, 2, 2, 2]);
  });
});
