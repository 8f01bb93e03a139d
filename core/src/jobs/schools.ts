/** Where the chain is put before it is opened: schools differ. */
export const SLACK_SCHOOLS = ['smallest-ring', 'off-ring', 'largest-ring'] as const
/** What is done with a new chain before it goes on: schools differ. */
export const PREPARE_SCHOOLS = ['strip', 'wipe', 'oil-ends'] as const
/** How a link is snapped home. */
export const CLOSE_SCHOOLS = ['pliers', 'pedal'] as const
/** How the bike stands. */
export const POSITIONS = ['upright', 'upside-down', 'on-side'] as const
export type Position = (typeof POSITIONS)[number]

/** The schools a shop or a mechanic has chosen. */
export interface JobSchools {
  readonly slack: (typeof SLACK_SCHOOLS)[number]
  readonly prepare: (typeof PREPARE_SCHOOLS)[number]
  readonly close: (typeof CLOSE_SCHOOLS)[number]
  /** Whether a drop of oil goes on a link's pins before it is closed; never on a waxed chain. */
  readonly oilPins: boolean
}

export const SHIPPED_SCHOOLS: JobSchools = { slack: 'smallest-ring', prepare: 'wipe', close: 'pliers', oilPins: false }
