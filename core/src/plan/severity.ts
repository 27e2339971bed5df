/** How much a finding weighs: it stops the chain, wants care, or is worth knowing. */
export type Severity = 'blocks' | 'care' | 'note';
