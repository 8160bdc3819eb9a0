/** The statistics library that tests ask; it ships without types. */
declare module 'jstat' {
  interface Distribution {
    cdf(x: number, df: number): number
    inv(p: number, df: number): number
  }
  const library: {
    jStat: {
      gammaln(x: number): number
      ibeta(x: number, a: number, b: number): number
      studentt: Distribution
      mean(list: readonly number[]): number
      variance(list: readonly number[], sample?: boolean): number
    }
  }
  export default library
}
