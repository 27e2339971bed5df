export function roles(o: {
  dataDir: string;
  open?: boolean;
}): Promise<{ calls: number; letIn: string[] }>;
