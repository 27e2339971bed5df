export function patience(): number;
export function patient(ms: number): number;
