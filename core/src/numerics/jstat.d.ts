/** The distributions taken from jstat, which ships no types. */
declare module 'jstat' {
  interface Distribution<Parameters extends number[]> {
    cdf(x: number, ...parameters: Parameters): number
    inv(share: number, ...parameters: Parameters): number
  }
  const library: {
    readonly jStat: {
      readonly normal: Distribution<[mean: number, deviation: number]>
      readonly chisquare: Distribution<[degrees: number]>
      readonly centralF: Distribution<[above: number, below: number]>
    }
  }
  export default library
}
