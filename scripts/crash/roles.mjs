import { randomUUID } from 'node:crypto';
import { caller, password, signIn, withMembers } from './members.mjs';

const RANK = { anyone: 0, reader: 1, member: 2, keeper: 3 };
const NOBODY = '00000000-0000-7000-8000-00000000dead';

/** A path with something in the place of every name. */
const filled = (path) =>
  path
    .replace('{sha256}', 'a'.repeat(64))
    .replace('{name}', 'ruddy-20260101-000000-abcdef.dump')
    .replace(/\{\w+\}/g, NOBODY);

/**
 * Every route of the server's own description, called by everybody whose role is below what it needs. `open` seeds a
 * defect: a caller of a higher role is counted as one of a lower.
 */
export async function roles({ dataDir, open = false }) {
  return withMembers({ dataDir }, async ({ url, keeper }) => {
    const callers = { anyone: caller(url) };
    for (const role of ['reader', 'member']) {
      const name = `Some ${role}`;
      await keeper('POST', '/api/members', { id: randomUUID(), name, role, password: password(0) });
      callers[role] = caller(url, (await signIn(url, name, 0)).cookie);
    }
    if (open) callers.reader = keeper;
    const { paths } = (await keeper('GET', '/api/openapi.json')).body;
    const letIn = [];
    let calls = 0;
    for (const [path, methods] of Object.entries(paths))
      for (const [method, { 'x-role': role }] of Object.entries(methods))
        for (const who of Object.keys(callers)) {
          if (RANK[who] >= RANK[role]) continue;
          calls += 1;
          const body = method === 'get' || method === 'delete' ? undefined : {};
          const { status } = await callers[who](method.toUpperCase(), filled(path), body);
          if (status !== 401 && status !== 403) letIn.push(`${who}: ${method} ${path} (${status})`);
        }
    return { calls, letIn };
  });
}
