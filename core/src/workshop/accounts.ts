export const ROLE_NAMES = ['reader', 'member', 'keeper'] as const;

/** Long rather than odd: length is what counts, and a limit keeps hashing cheap (after NIST SP 800-63B, from memory). */
export const PASSWORD_LEAST = 12;
