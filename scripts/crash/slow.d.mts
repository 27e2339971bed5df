export function databaseAway(o: { dataDir: string; rounds?: number; awayMs?: number }): Promise<{
  rounds: number;
  asked: number;
  told: number;
  wordless: number;
  backMs: (number | null)[];
}>;
