import type { BuildOptions } from 'esbuild';

export declare const THREADS: string[];
export declare const PROGRAM_OPTIONS: BuildOptions;
export declare const BUNDLE_OPTIONS: BuildOptions;
