interface Counted {
  cases: number;
  read: number;
  refused: number;
}
export function fuzz(o: { cases: number; seed: number; log?: (line: string) => void }): Promise<
  Counted & {
    crashes: { i: number; name: string; error?: string; input?: string }[];
    hangs: number[];
    slowest: { ms: number; name: string };
    targets: Record<string, Counted>;
    seconds: number;
  }
>;
