/** Types of the cluster helpers, for the tests that use them. */
export interface Cluster {
  recovered: boolean;
  url(database: string): string;
  psql(database: string, sql: string): { code: number; out: string };
  close(): void;
}
export function openCluster(dataDir: string, options?: { fsync?: boolean }): Promise<Cluster>;
export function ensureDatabase(cluster: Cluster, name: string): void;
