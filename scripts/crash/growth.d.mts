export function growth(o: { base?: number; defect?: boolean; only?: string[] }): Promise<{
  tried: number;
  measured: number;
  worst: { name: string; value: number; ms: number } | null;
  over: { name: string; value: number; ms: number }[];
}>;
