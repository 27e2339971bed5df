interface Read {
  name: string;
  worstMs: number;
  addedMb: number;
  said: string;
  answered: boolean;
}
export function files(o: { dataDir: string; only?: string[]; held?: boolean }): Promise<{
  results: Read[];
  beforeMb: number;
  slowest: Read;
  largest: Read;
  unanswered: number;
}>;
