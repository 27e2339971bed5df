export const TEST_SCALE: number;
export const LONG: boolean;
export function scaled(n: number): number;
