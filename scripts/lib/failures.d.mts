export function failuresOf(stage: string, results: string): string;
export function secondTries(stage: string, results: string): string[];
