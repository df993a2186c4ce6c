/** The functions of jStat that the tests use. */
declare module "jstat" {
  const jstat: {
    readonly jStat: {
      readonly normal: { inv(p: number, mean: number, deviation: number): number };
      readonly beta: { mean(a: number, b: number): number; variance(a: number, b: number): number };
      mean(values: readonly number[]): number;
    };
  };
  export default jstat;
}
