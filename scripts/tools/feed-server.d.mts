import type { Server } from 'node:http';

export const FEED_PORT: number;
export function startFeeds(port?: number): Promise<Server | null>;
