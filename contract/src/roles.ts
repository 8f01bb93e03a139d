import * as v from 'valibot'

export const Role = v.picklist(['owner', 'mechanic', 'desk', 'apprentice', 'read-only'])
export type Role = v.InferOutput<typeof Role>

/**
 * What may be done in a shop, and by whom: the one table the server enforces, screens go by, and the test of every address walks.
 *
 * Nothing here is about single rows: what an apprentice has done is marked so until a mechanic has looked, and an order above the shop's sum
 * wants an owner.
 */
export const RIGHTS = {
  /** Looks at everything but what is the owner's. */
  'signed-in': ['owner', 'mechanic', 'desk', 'apprentice', 'read-only'],
  /** Puts a bike on the stand, sets its place in the line-up. */
  stand: ['owner', 'mechanic', 'desk', 'apprentice'],
  /** Odometers, rides, ride accounts. */
  distance: ['owner', 'mechanic', 'desk', 'apprentice'],
  /** Readings, ticks of a job, care, the pot's chains, what else wears; holds a gauge. */
  record: ['owner', 'mechanic', 'apprentice'],
  /** Says what is done with a chain otherwise than the verdict. */
  decide: ['owner', 'mechanic'],
  /** Ends jobs; swaps, mends and keeps chains and parts; the drive; pots; intervals of care. */
  work: ['owner', 'mechanic'],
  /** The catalogue, and what lies on the shelf. */
  stock: ['owner', 'mechanic'],
  /** Instruments and their studies. */
  instruments: ['owner', 'mechanic'],
  /** Forecasts of every chain of the shop. */
  forecast: ['owner', 'mechanic'],
  /** Asks a supplier, orders, receives. */
  orders: ['owner', 'mechanic', 'desk'],
  /** Customers and what of their bikes is theirs to say. */
  customers: ['owner', 'mechanic', 'desk'],
  diary: ['owner', 'mechanic', 'desk'],
  messages: ['owner', 'mechanic', 'desk'],
  /** The rules of the house, tables and the archive, backups, people. Asks for the password again when it was not typed lately. */
  owner: ['owner'],
} as const satisfies Record<string, readonly Role[]>

export type Right = keyof typeof RIGHTS

/** Whether a role may do something. */
export const may = (role: Role, right: Right): boolean => (RIGHTS[right] as readonly Role[]).includes(role)
