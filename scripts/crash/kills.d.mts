export function kills(o: {
  n: number;
  seed: number;
  dataDir: string;
  log?: (line: string) => void;
}): Promise<{
  kills: number;
  server: number;
  database: number;
  both: number;
  confirmed: number;
  unconfirmed: number;
  again: number;
  lost: number;
  half: number;
  doubled: number;
  died: number;
  problems: string[];
  rules: string[];
  seconds: number;
}>;
