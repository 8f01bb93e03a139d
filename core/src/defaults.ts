import { DECLARED, type Declared } from './declared.ts'

type Shipped<T> = { readonly [K in keyof T]: T[K] extends Declared ? number : Shipped<T[K]> }

const isDeclared = (node: object): node is Declared => 'shipped' in node

const shippedOf = <T extends object>(tree: T): Shipped<T> =>
  Object.fromEntries(
    Object.entries(tree).map(([key, node]: [string, object]) => [
      key,
      isDeclared(node) ? node.shipped : shippedOf(node),
    ]),
  ) as Shipped<T>

/** The values {@link DECLARED} ships. A shop can change each of them; whoever reads one is handed the shop's. */
export const DEFAULTS = shippedOf(DECLARED)

/** Nominal pitch of every bicycle chain, mm: half an inch exactly (ISO 9633). */
export const PITCH_MM = 12.7

/** Millimetres in an inch, exact by definition. */
export const MM_PER_INCH = 25.4

/** Kilometres in a statute mile, exact by definition. */
export const KM_PER_MILE = 1.609344

/** The values of {@link DEFAULTS}.forecast a fit reads, as a shop may have set them. */
export interface WearPriorDefaults {
  readonly priors: Readonly<
    Record<
      keyof typeof DEFAULTS.forecast.priors,
      { readonly life: number; readonly gamma: number; readonly gammaSd: number }
    >
  >
  readonly lifeSd: number
  readonly epsilon0: number
  readonly epsilon0U: number
  readonly unknownLives: number
}
