export const CHROMIUM_FLAGS: string[];
export function chromium(): string;
