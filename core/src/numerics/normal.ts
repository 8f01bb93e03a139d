/** 1/√(2π), the height of the standard normal density at its middle. */
const INV_SQRT_2PI = 0.3989422804014327

/** Density of the standard normal distribution at z. */
export function normalDensity(z: number): number {
  return INV_SQRT_2PI * Math.exp(-0.5 * z * z)
}

/**
 * Cumulative standard normal distribution, Φ(z), with an absolute error below 1e-15.
 * Rational approximation in three ranges after W. J. Cody's erfc as rearranged by G. Marsaglia and J. Hart
 * (G. West, "Better approximations to cumulative normal functions", 2005).
 */
export function normalCumulative(z: number): number {
  const a = Math.abs(z)
  if (a > 37) return z > 0 ? 1 : 0
  const e = Math.exp((-a * a) / 2)
  let upper: number
  if (a < 7.07106781186547) {
    let num = 3.52624965998911e-2 * a + 0.700383064443688
    num = num * a + 6.37396220353165
    num = num * a + 33.912866078383
    num = num * a + 112.079291497871
    num = num * a + 221.213596169931
    num = num * a + 220.206867912376
    let den = 8.83883476483184e-2 * a + 1.75566716318264
    den = den * a + 16.064177579207
    den = den * a + 86.7807322029461
    den = den * a + 296.564248779674
    den = den * a + 637.333633378831
    den = den * a + 793.826512519948
    den = den * a + 440.413735824752
    upper = (e * num) / den
  } else {
    const tail = a + 1 / (a + 2 / (a + 3 / (a + 4 / (a + 0.65))))
    upper = e / tail / 2.506628274631
  }
  return z > 0 ? 1 - upper : upper
}

/** Nodes and weights of 7-point Gauss–Hermite quadrature for a standard normal weight (weights sum to 1). */
export const GAUSS_HERMITE_7: readonly (readonly [node: number, weight: number])[] = [
  [-3.750439717725742, 0.0005482688559722],
  [-2.366759410734541, 0.0307571239675865],
  [-1.154405394739968, 0.2401231786050127],
  [0, 0.4571428571428571],
  [1.154405394739968, 0.2401231786050127],
  [2.366759410734541, 0.0307571239675865],
  [3.750439717725742, 0.0005482688559722],
]

/** The same with five nodes, for where two such integrals cross: exact to the ninth power. */
export const GAUSS_HERMITE_5: readonly (readonly [node: number, weight: number])[] = [
  [-2.8569700138728056, 0.0112574113277207],
  [-1.355626179974266, 0.2220759220056126],
  [0, 0.5333333333333333],
  [1.355626179974266, 0.2220759220056126],
  [2.8569700138728056, 0.0112574113277207],
]
