/** Whether a request said through whom it came while nothing in front of this server was configured. */
let unexpected = false;

/**
 * Notices a forwarding header that nobody configured: everybody behind that proxy then counts as one address.
 * @returns whether it is the first one since the start
 */
export function noticeForwarding(header: string | undefined, proxies: number): boolean {
  if (header === undefined || proxies > 0 || unexpected) return false;
  unexpected = true;
  return true;
}

/** In words, for the log and for keepers; empty when there is nothing to say. */
export function proxyWarning(): string {
  return unexpected
    ? 'A proxy in front of this server says where requests come from (X-Forwarded-For), but RUDDY_PROXIES is 0: everybody behind it counts as one address. Set RUDDY_PROXIES to the number of proxies in front.'
    : '';
}
