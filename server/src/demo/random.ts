import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { skipN } from 'pure-rand/utils/skipN'

/** A small seed leaves most of the generator's state empty: what it draws first is near 1, whatever the seed. */
const WARM_UP = 32

/** Chance that is the same every time: everything drawn follows from the seed. */
export class Chance {
  private readonly generator

  constructor(seed: number) {
    this.generator = xoroshiro128plus(seed)
    skipN(this.generator, WARM_UP)
  }

  /** 0 up to 1. */
  unit(): number {
    return uniformFloat64(this.generator)
  }
  between(low: number, high: number): number {
    return low + (high - low) * this.unit()
  }
  whole(low: number, high: number): number {
    return uniformInt(this.generator, low, high)
  }
  happens(probability: number): boolean {
    return this.unit() < probability
  }
  pick<T>(from: readonly T[]): T {
    return from[this.whole(0, from.length - 1)]!
  }
  /** Normally distributed (Box and Muller). */
  normal(mean: number, deviation: number): number {
    const radius = Math.sqrt(-2 * Math.log(1 - this.unit()))
    return mean + deviation * radius * Math.cos(2 * Math.PI * this.unit())
  }
  /** A UUIDv7 of a moment, its random part drawn from here. */
  id(at: Date): string {
    const time = at.getTime().toString(16).padStart(12, '0')
    const hex = (digits: number): string =>
      Array.from({ length: digits }, () => this.whole(0, 15).toString(16)).join('')
    return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-${this.pick(['8', '9', 'a', 'b'])}${hex(3)}-${hex(12)}`
  }
}
