import type { FieldMeta } from '../kit/meta';

/** The field of a one-time code, or of a recovery code in its place. */
export const CODE_META: FieldMeta = {
  label: 'One-time code',
  input: 'text',
  max: 40,
  autocomplete: 'one-time-code',
  help: 'Six digits of your authenticator program, or a recovery code',
};
