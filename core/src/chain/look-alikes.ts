import type { HostSpec, SocketSpec } from '../parts';

/** What is inside a port, where a hand sees only the plug. */
function inside(s: SocketSpec): string {
  return JSON.stringify([s.standard, s.tunnelling, s.lanes, s.pcieGen]);
}

/**
 * Ports of a host with the same plug as one of them but something else inside: only the mark tells them apart.
 * @param host the host with its ports
 * @param key key of the port in question
 * @returns the other ports; none where the key is unknown
 */
export function lookAlikes(host: HostSpec, key: string): SocketSpec[] {
  const own = host.sockets.find((s) => s.key === key);
  if (!own) return [];
  return host.sockets.filter(
    (s) => s.key !== key && s.connector === own.connector && inside(s) !== inside(own),
  );
}
