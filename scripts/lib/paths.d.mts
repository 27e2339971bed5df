export const ROOT: string;
export const DATA_DIR: string;
export const TEST_DATA_DIR: string;
export const WEB_DIR: string;
export const SERVER_FILE: string;
export const DEMO_FILE: string;
export const DEMO_NOW: string;
