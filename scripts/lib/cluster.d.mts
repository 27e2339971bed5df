/** Types of the cluster helpers, for the tests that use them. */
export interface Cluster {
  recovered: boolean;
  programs: { bin: string; env: Record<string, string> };
  url(database: string): string;
  restoreUrl(database: string): string;
  adminUrl(database: string): string;
  createDatabase(name: string, template?: string): { code: number; out: string };
  psql(database: string, sql: string): { code: number; out: string };
  kill(): void;
  again(): Promise<{ code: number; out: string }>;
  close(): void;
}
export function openCluster(
  dataDir: string,
  options?: { fsync?: boolean; place?: string | null },
): Promise<Cluster>;
export function ensureDatabase(cluster: Cluster, name: string): void;
