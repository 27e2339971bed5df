import type { AreaState, Coverage, JudgedArea } from '../areas';

/** What each area is called. */
export const AREA_NOUNS: Record<JudgedArea, string> = {
  link: 'link',
  plugs: 'power plugs',
  watts: 'watts',
  room: 'room',
  software: 'software',
  charging: 'charging',
  air: 'air',
  picture: 'picture',
  handling: 'handling',
};

/** States of an area in a word. */
export const AREA_STATES: Record<AreaState, string> = {
  good: 'fine',
  care: 'care',
  stops: 'stops it',
  open: 'not known',
  none: 'does not apply',
};

/**
 * Coverage in words.
 * @param coverage areas known and areas that apply
 * @returns "5 of 7 areas known"
 */
export function coverageWords({ known, of }: Coverage): string {
  return `${known} of ${of} areas known`;
}
