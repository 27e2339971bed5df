export interface Rig {
  setup: string;
  title: string;
  on: string;
  settings: { resolution: string };
  cpu: number;
  card: number;
  toll: number;
  back?: number;
  cap?: number;
  n: number;
  s: number;
  odd?: { hitch?: { every: number; ms: number }; start?: number; generated?: boolean };
  sensors?: boolean;
}
export const FRAMES: Rig[];
export const REPEAT: number;
