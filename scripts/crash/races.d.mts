export function races(o: { dataDir: string; rounds?: number; seeded?: boolean }): Promise<{
  results: Record<string, { tried: number; lost: number }>;
  tried: number;
  lost: number;
}>;
