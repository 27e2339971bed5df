import { listed, partNoun } from '../../base/text';
import { type AttrPath, describePath } from '../../chain';
import type { AttrMeta } from '../../parts';
import type { Certainty } from '../kind';

/**
 * An attribute as a person asks for it.
 * @param path of the attribute, or of a slot
 * @returns "8-pin sockets of the card", "the supply"
 */
export function attributeName(path: AttrPath): string {
  const { part, meta } = describePath(path);
  return meta ? `${meta.label} of the ${part}` : partNoun(path);
}

/**
 * What a finding depends on, as a sentence of its own.
 * @param f its certainty
 * @returns the sentence; empty where it depends on nothing
 */
export function notKnown(f: Pick<Certainty, 'hangsOn'>): string {
  const names = [...new Set(f.hangsOn.map(attributeName))];
  return names.length > 0 ? `Not known: ${listed(names)}.` : '';
}

/**
 * The typical range of an attribute.
 * @param meta range and unit
 * @returns "Typical: 170 to 340 mm, not confirmed."; empty where nothing is typical
 */
export function typicalWords({ typical, unit }: Pick<AttrMeta, 'typical' | 'unit'>): string {
  return typical
    ? `Typical: ${typical[0]} to ${typical[1]}${unit ? ` ${unit}` : ''}, not confirmed.`
    : '';
}
