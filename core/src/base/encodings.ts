/** Encodings of a text file, by their labels in the WHATWG Encoding Standard. */
export const ENCODINGS = [
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'shift_jis',
  'gb18030',
] as const;
export type Encoding = (typeof ENCODINGS)[number];
