/** The few functions of the package that are used here. */
declare module 'jstat' {
  interface Distribution {
    cdf(x: number, dof: number): number;
    inv(p: number, dof: number): number;
  }
  interface Normal {
    cdf(x: number, mean: number, sd: number): number;
    inv(p: number, mean: number, sd: number): number;
  }
  interface TwoShapes {
    inv(p: number, alpha: number, beta: number): number;
  }
  export const jStat: {
    readonly normal: Normal;
    readonly studentt: Distribution;
    readonly chisquare: Distribution;
    readonly beta: TwoShapes;
  };
  const all: { readonly jStat: typeof jStat };
  export default all;
}
