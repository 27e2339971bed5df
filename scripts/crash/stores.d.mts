export function stores(o: {
  cases: number;
  seed: number;
  dataDir: string;
  log?: (line: string) => void;
}): Promise<{
  cases: number;
  stored: number;
  refused: number;
  crashes: object[];
  half: object[];
  rules: string[];
  seconds: number;
}>;
