/** Words the screen and the printed page both say. */
export const word = {
  'measure-it': 'Measure it',
  'not-measured-yet': 'Not measured yet',
  'measure-again': 'Measure again',
  'keep-riding': 'Keep riding',
  'closing-in': 'Closing in',
  change: 'Change the chain',
} as const

/** How a chain is cared for. */
export const care = {
  'immersion-wax': 'immersion wax',
  'drip-wax': 'drip wax',
  'dry-oil': 'dry oil',
  'wet-oil': 'wet oil',
  unknown: 'care not known',
} as const

/** Which gears a rider is to keep off. */
export const riderGears = {
  keepOff: {
    forbidden: 'Keep off {{which}}{{ring}}: the chain is too short.',
    loose: 'Keep off {{which}}{{ring}}: the chain hangs loose.',
  },
  which: {
    all: 'every sprocket',
    largest_one: 'the largest sprocket',
    largest_other: 'the {{count}} largest sprockets',
    smallest_one: 'the smallest sprocket',
    smallest_other: 'the {{count}} smallest sprockets',
    these: 'sprockets {{teeth}}',
  },
  ring: {
    largest: ' while on the large ring',
    middle: ' while on the middle ring',
    smallest: ' while on the small ring',
    null: '',
  },
} as const
