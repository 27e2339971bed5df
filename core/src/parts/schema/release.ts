import * as z from 'zod';
import { choiceAttr, numAttr, textAttr, wordAttr } from './meta';
import { type SoftwareRole, SYSTEM_FAMILIES } from './system';
import { SOFTWARE_NAMES } from './words';

const isoDay = (label: string, help = '') =>
  textAttr(label, 10, false, {
    help: help || 'Year, month, day: 2026-04-30. Empty when not known.',
  })
    .refine((s) => s === '' || (/^\d{4}-\d{2}-\d{2}$/.test(s) && !Number.isNaN(Date.parse(s))), {
      error: `${label}: a date like 2026-04-30, or empty`,
    })
    .default('');
const version = (label: string, help = '') =>
  textAttr(label, 60, false, help ? { help } : {}).default('');

/** A kind of software by its key. */
export const softwareRole = z.enum(
  Object.keys(SOFTWARE_NAMES) as [SoftwareRole, ...SoftwareRole[]],
);

/** Maker and model say what it is for; a family name or "any" matches several. */
const subject = {
  maker: textAttr('Maker of it', 80, true, { help: '"any" matches every maker.' }),
  model: textAttr('Model or family', 80, true, {
    help: 'A model, a driver family of cards, or "any".',
  }),
};

/** A release of firmware, a driver or a system; its version stands as the variant. */
export const releaseSchema = z.strictObject({
  ...subject,
  variant: textAttr('Version', 60, true),
  what: wordAttr('What', SOFTWARE_NAMES),
  releasedOn: isoDay('Released on'),
  withdrawnOn: isoDay('Withdrawn on', 'Only when the maker took it back.'),
  whereFrom: textAttr('Where it comes from', 200, false, {
    help: "The maker's page or tool, in words.",
  }).default(''),
  fixes: textAttr('Symptoms it fixes', 400, false, {
    help: 'Several separated by semicolons.',
  }).default(''),
  breaks: textAttr('What it breaks', 400, false, {
    help: 'Several separated by semicolons.',
  }).default(''),
  capGbps: numAttr('Cap to the card from this version', 'Gb/s', 1, 120, {
    when: { attr: 'what', is: ['dockFirmware'] },
    help: 'Only when this version lifts or lowers it.',
  }),
  capBeforeGbps: numAttr('Cap before this version', 'Gb/s', 1, 120, {
    when: { attr: 'what', is: ['dockFirmware'] },
  }),
  note: textAttr('Note', 400, false).default(''),
});
export type ReleaseSpec = z.infer<typeof releaseSchema>;

/** The slot that a requirement applies to. */
export const SUBJECTS = {
  host: 'Host',
  dock: 'Dock',
  card: 'Card',
  adapter: 'Adapter',
  system: 'System',
} as const;

/**
 * A requirement: the part, the version it needs at least or at most, the system, the days it holds, and the effect of
 * not meeting it. Support that ended has an end date; it is not deleted.
 */
export const requirementSchema = z
  .strictObject({
    ...subject,
    variant: textAttr('Short title', 80, true, { help: 'What it is about, in a few words.' }),
    subject: wordAttr('About', SUBJECTS),
    andCard: textAttr('Only with a card', 80, false, {
      help: 'A model or a driver family; empty for every card.',
    }).default(''),
    onSystem: choiceAttr('Only on', SYSTEM_FAMILIES, {
      help: 'Not sure, or left open: on every system.',
    }),
    systemFrom: version('From system build', 'Empty: from the first.'),
    systemUntil: version('Until system build', 'Empty: still.'),
    fromOn: isoDay('Holds from'),
    untilOn: isoDay('Held until', 'Empty: still holds.'),
    needs: wordAttr('Needs', {
      ...SOFTWARE_NAMES,
      refused: 'Nothing helps: not supported',
      repackaged: 'A repackaged driver',
      heed: 'Only to be known',
    }),
    atLeast: version('At least'),
    atMost: version('At most'),
    severity: wordAttr('When it is not met', {
      blocks: 'Blockers',
      care: 'Warnings',
      note: 'Notes',
    }),
    effect: textAttr('What is seen then', 300, true, { help: 'In words: crashes on plugging in.' }),
    workaround: textAttr('Workaround', 300, false).default(''),
    workaroundFrom: version('Worked from'),
    workaroundUntil: version('Worked until'),
    source: textAttr('Where this is from', 200, true),
    statedOn: isoDay('Stated on'),
    confidence: numAttr('How sure', '%', 0, 100, {
      help: "Maker's paper 90 or more; heard once 20.",
    }),
  })
  .superRefine((r, ctx) => {
    const versioned = r.needs in SOFTWARE_NAMES;
    if (versioned && r.atLeast === '' && r.atMost === '')
      ctx.addIssue({
        code: 'custom',
        path: ['atLeast'],
        message: 'Say from which version, or until which',
      });
    if (!versioned && (r.atLeast !== '' || r.atMost !== ''))
      ctx.addIssue({
        code: 'custom',
        path: ['needs'],
        message: 'A version needs to say of what it is',
      });
    if (r.fromOn !== '' && r.untilOn !== '' && r.untilOn < r.fromOn)
      ctx.addIssue({
        code: 'custom',
        path: ['untilOn'],
        message: 'Held until: not before it begins',
      });
  });
export type RequirementSpec = z.infer<typeof requirementSchema>;
