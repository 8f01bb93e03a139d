/** What a bike is in for, as far as its chain may have to do with it. */
export const COMPLAINTS = ['poor-shifting', 'skipping', 'noise', 'squeak', 'broken', 'wash', 'service'] as const
export type Complaint = (typeof COMPLAINTS)[number]

/** Something looked at for a complaint. Each has its words in the message catalogue. */
export const COMPLAINT_CHECKS = [
  'wear',
  'teeth',
  'stiff-link',
  'joint',
  'length',
  'hanger',
  'cable',
  'lubricant',
  'pulleys',
  'break',
  'dry-and-treat',
  'other-wear',
] as const
export type ComplaintCheck = (typeof COMPLAINT_CHECKS)[number]

/** What a complaint opens, in the order it is looked at: wear first, for it explains most of them. */
const OPENS: Readonly<Record<Complaint, readonly ComplaintCheck[]>> = {
  'poor-shifting': ['wear', 'cable', 'hanger', 'stiff-link', 'length', 'pulleys'],
  skipping: ['wear', 'teeth', 'stiff-link', 'joint'],
  noise: ['wear', 'lubricant', 'joint', 'pulleys', 'teeth'],
  squeak: ['wear', 'lubricant', 'pulleys'],
  // A chain in two is looked over before anything is measured on it.
  broken: ['break', 'wear', 'length', 'teeth'],
  wash: ['wear', 'dry-and-treat'],
  service: ['wear', 'teeth', 'lubricant', 'joint', 'other-wear'],
}

export const checksFor = (complaint: Complaint): readonly ComplaintCheck[] => OPENS[complaint]

/** Words people at the desk write, in the order they are looked for: the graver first. */
const HEARD: readonly (readonly [Complaint, RegExp])[] = [
  ['broken', /\b(broke|broken|snapp|came off|fell off)/i],
  ['skipping', /\b(skip|slip|jump|new cassette)/i],
  ['squeak', /\b(squeak|squeal|chirp)/i],
  ['noise', /\b(nois|grind|rattl|click|creak|rumbl)/i],
  ['poor-shifting', /\b(shift|gears?\b|indexing|derail)/i],
  ['wash', /\b(wash|clean|mud|wax|lube|oil)/i],
  ['service', /\b(service|check|overhaul|look over)/i],
]

/** The complaint in what somebody wrote of a visit; null where none is heard. */
export const complaintIn = (reason: string): Complaint | null =>
  HEARD.find(([, words]) => words.test(reason))?.[0] ?? null
