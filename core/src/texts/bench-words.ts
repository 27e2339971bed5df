/** Security levels of a link as the bench says them. */
export const SECURITY_WORDS: Readonly<Record<string, string>> = {
  none: 'none, everything connects',
  user: 'user, asks',
  secure: 'secure, asks with a key',
  dponly: 'pictures only',
  usbonly: 'USB only',
  nopcie: 'no PCIe',
};
