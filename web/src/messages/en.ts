import { problems } from '@pelrin/contract/messages'
import { assumed, rules } from './en/rules.ts'
import { bike } from './en/bike.ts'
import { distanceOf, imports } from './en/distance.ts'
import { forecast, waiting } from './en/forecast.ts'
import { insight } from './en/insight.ts'
import { gauge } from './en/gauge.ts'
import { study } from './en/study.ts'
import { gauges, chartOf } from './en/gauges.ts'
import { measure } from './en/measure.ts'
import { parts } from './en/parts.ts'
import { stand } from './en/stand.ts'
import { why } from './en/why.ts'

/** Every word the application says, in English. Keys are stable; sentences may change. */
export const en = {
  problems,

  app: {
    name: 'Pelrin',
    line: 'Chain wear, measured and judged at the stand.',
    places: 'Places',
    skip: 'Go to the main part',
    offline: 'No connection. What you save is kept on this device and sent later.',
    loading: 'One moment …',
    tryAgain: 'Try again',
    close: 'Close',
    cancel: 'Cancel',
    save: 'Save',
    unknown: 'not known',
    fault: 'This did not work',
    faultId: 'If it stays, give this number: {{id}}',
    notHere: 'There is nothing at this address.',
    toStand: 'To the stand',
    light: 'Light or dark',
  },

  place: {
    stand: 'Stand',
    rack: 'Rack',
    bike: 'Bike',
    measure: 'Measure',
    parts: 'Parts',
    gauges: 'Gauges',
    insight: 'Insight',
    distance: 'Distance',
    rules: 'House rules',
  },

  signIn: {
    title: 'Sign in',
    shop: 'Workshop',
    name: 'Name',
    password: 'Password',
    go: 'Sign in',
    demo: 'Demo workshop: choose somebody',
    demoNote: 'Everything in it is made up.',
    role: {
      owner: 'owner',
      mechanic: 'mechanic',
      desk: 'front desk',
      apprentice: 'apprentice',
      'read-only': 'looks only',
    },
  },

  person: {
    here: 'At this bench',
    switch: 'Somebody else',
    initials: 'Initials',
    pin: 'PIN',
    take: 'Take over',
    out: 'Sign this device out',
    outWaiting: 'What waits to be sent is kept.',
  },

  find: {
    label: 'Find a bike',
    hint: 'Name, tag or frame mark',
    none: 'No bike like “{{text}}”. Try part of the name, or the tag.',
    tag: 'tag {{tag}}',
  },

  keys: {
    title: 'Keys',
    anywhere: 'Anywhere',
    typing: 'start typing',
    finds: 'finds a bike',
    sheet: 'this sheet',
    place: 'go to a place',
    back: 'back',
    onStand: 'On the stand',
    choose: 'choose in the line-up',
    put: 'put it on the stand',
    move: 'move it up or down',
    measure: 'measure',
    record: 'the bike’s record',
    why: 'why this verdict',
    done: 'done for today',
    inMeasure: 'While measuring',
    next: 'next field; saves at the end',
    pick: 'pick the count offered',
    jump: 'jump to a place on the loop',
    takeInstrument: 'take another instrument',
    howTaken: 'where and how it was taken',
    howTo: 'how the instrument is used',
    mode: 'next caliper mode',
    whySpot: 'why this number',
    inBike: 'On a bike',
    correct: 'correct the newest reading',
    decide: 'decide otherwise',
    distance: 'distance and rides',
    parts: 'parts and length',
    inParts: 'In Parts',
    chooseChain: 'another chain',
    chooseJoint: 'another joint',
    pitches: 'two pitches fewer or more',
    ask: 'will this do?',
    editDrive: 'what is known of the drive',
    inGauges: 'In Gauges',
    check: 'check the instrument',
    editRecord: 'change its record',
    note: 'A letter that begins a name still finds it: just go on typing.',
  },

  word: {
    'measure-it': 'Measure it',
    'not-measured-yet': 'Not measured yet',
    'measure-again': 'Measure again',
    'keep-riding': 'Keep riding',
    'closing-in': 'Closing in',
    change: 'Change the chain',
  },
  overdue: 'Look overdue',
  advice: { 'try-the-sprockets': 'Try the sprockets', 'check-everything': 'Check everything it runs on' },
  flag: {
    'lower-than-before':
      'Lower than an earlier reading by more than both can be wrong. Wrong chain, wrong instrument, or swapped?',
    'wide-spread': 'The spots differ by more than 0.15 %. The worst one governs.',
    'odd-count': 'An odd count mixes a part that wears with one that does not. Measure an even count.',
    'borderline-mark': 'A mark went in with a push only: borderline.',
    'check-lapsed': 'Read with an instrument whose check has lapsed.',
    'watch-mark-unseen': 'This gauge cannot see the mark at which to look more often.',
    'by-hand-suspicion': 'A check by hand hinted that it is worn.',
    'customer-reading-apart': 'The customer’s own reading is kept apart and does not govern.',
    'instruments-at-odds': 'Two instruments disagree beyond what both can be wrong.',
  },
  school: {
    'by-speeds': 'by speeds',
    'early-change': 'early change',
    'plan-and-change': 'plan and change',
    'as-marked': 'as marked',
    custom: 'own rule',
  },
  settle: {
    'more-spots_one': 'Measure one more spot round the chain.',
    'more-spots_other': 'Measure {{count}} more spots round the chain.',
    'better-instrument': 'Measure with {{instrument}}.',
    'instrument-that-can': 'Measure with {{instrument}}: this one cannot answer at the limit.',
    'instrument-that-can-none': 'Nothing in the shop can answer at this limit; a rule can.',
    'same-spot-with-both': 'Measure one and the same spot with both instruments.',
    otherwise: 'As it stands it would say: {{word}}.',
  },
  verdict: {
    sentence:
      'Worst spot <b>{{value}} %</b> ± {{u}}, limit <b>{{limit}}</b> {{school}}: over it with a chance of {{chance}}.',
    sentenceMany:
      'Worst of {{count}} spots <b>{{value}} %</b> ± {{u}}, limit <b>{{limit}}</b> {{school}}: over it with a chance of {{chance}}.',
    interval: 'The gauge shows {{interval}}; limit <b>{{limit}}</b> {{school}}: over it with a chance of {{chance}}.',
    nothing: 'Nothing measured on this chain yet. Limit <b>{{limit}}</b> {{school}}.',
    wanted_one: 'One more spot is wanted.',
    wanted_other: '{{count}} more spots are wanted.',
    chance: '{{n}} in 100',
    chanceLow: 'under 1 in 100',
    chanceHigh: 'over 99 in 100',
    over: 'over {{over}} %',
    under: 'under {{under}} %',
    between: '{{over}} to {{under}} %',
  },

  drive: {
    derailleur: '{{speeds}}-speed',
    'hub-gear': '{{speeds}}-speed hub',
    'single-speed': 'single speed',
  },
  driveKind: { derailleur: 'Derailleur', 'hub-gear': 'Hub gear', 'single-speed': 'Single speed' },
  care: {
    'immersion-wax': 'immersion wax',
    'drip-wax': 'drip wax',
    'dry-oil': 'dry oil',
    'wet-oil': 'wet oil',
    unknown: 'care not known',
  },
  instrument: {
    'steel-rule': 'Steel rule',
    caliper: 'Caliper',
    'drop-in': 'Drop-in gauge',
    'swing-arm': 'Swing-arm gauge',
    graduated: 'Graduated gauge',
    digital: 'Digital gauge',
    'full-length': 'Full length',
    'by-hand': 'By hand',
    lapsed: 'check lapsed',
    lapsedSince: 'Its last check was on {{date}}: that has lapsed.',
    neverChecked: 'It was never checked against a strip.',
    readsEarly: 'It reads early: it shows more wear than there is.',
    seesRollerWear: 'Roller wear adds in with this one.',
  },

  rule: {
    label: 'Wear rule: {{spots}}; limit {{limit}} %',
    empty: 'Wear rule, nothing measured; limit {{limit}} %',
    spot: '{{value}} %',
  },

  chart: {
    title: 'Wear of this chain',
    elongation: 'elongation, %',
    km: 'distance on this chain, km',
    date: 'date',
    reading: 'worst spot ± u, or a gauge’s span',
    limit: 'limit {{limit}}',
    none: 'No reading to draw yet.',
    label: 'Elongation of this chain over distance, {{count}} readings, limit {{limit}} %',
  },

  stand,
  forecast,
  waiting,
  distanceOf,
  imports,
  insight,
  parts,

  rack: {
    title: 'Every bike, soonest trouble first',
    filter: 'Customer, tag, frame mark',
    all: 'All',
    state: {
      change: 'Change',
      measure: 'Measure',
      'closing-in': 'Closing in',
      overdue: 'Overdue',
      'keep-riding': 'Keep riding',
    },
    anyDrive: 'Any drive',
    drive: 'Drive',
    bike: 'Bike',
    verdict: 'Verdict',
    wear: 'Wear',
    chance: 'Over limit',
    ran: 'Ran',
    measured: 'Measured',
    next: 'Next look',
    none: 'No bike matches. Take a filter away.',
    count_one: 'one bike',
    count_other: '{{count}} bikes',
    more: 'Loading more …',
  },

  bike,

  measure,

  outbox: {
    waiting_one: '1 waiting to be sent',
    waiting_other: '{{count}} waiting to be sent',
    refused_one: '1 was refused',
    refused_other: '{{count}} were refused',
    title: 'Not sent yet',
    reading: 'Reading of {{bike}}, {{time}}',
    open: 'Open it again',
    drop: 'Throw it away',
  },

  why,

  gauge,
  study,
  gauges,
  chartOf,
  rules,
  assumed,
  driveClass: {
    'derailleur-11-up': 'Derailleur, 11 speeds and up',
    'derailleur-to-10': 'Derailleur, up to 10',
    'single-or-hub': 'Single speed or hub gear',
  },
  material: { steel: 'Steel', stainless: 'Stainless steel', brass: 'Brass', aluminium: 'Aluminium' },

  unit: { km: 'km', mi: 'mi' },
} as const
