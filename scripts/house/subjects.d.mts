export const SUBJECTS: readonly string[];
export const JOINS: RegExp;
export function laterThan(subject: string): string;
