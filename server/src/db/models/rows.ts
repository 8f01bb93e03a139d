import type {
  HouseRule as CoreHouseRule,
  VerdictFlag,
  VerdictWord,
  ChainVerdict,
  School,
  SprocketAdvice,
  InstrumentKind,
  DriveType,
  ChainForecast,
  Suspension,
  WidthClass,
  Surface,
  SurfaceKm,
  PartKind,
  PresentJoint,
  JobEvent,
  JobPlan,
  MendOption,
  OldFate,
  PitchKind,
  ToothGrade,
  WearItemId,
  WearResult,
  Cleaning,
  BathCondition,
  PotNeed,
  PotRecipe,
  Treatment,
} from '@pelrin/core'
import type { ReminderLanguage } from '@pelrin/contract/messages'
import type {
  CareNext,
  CsvMapping,
  ImportLine,
  JobParts,
  JobWritten,
  LearnedGroup,
  LearnedUnsaid,
  PlanStudy,
  PotState,
  PullOutcome,
  RideImport,
  Role,
  SpotMark,
  StudyResult,
  VerdictInput,
} from '@pelrin/contract'

/** A fact: appended, never rewritten. A correction names what it supersedes; a deletion is a tombstone. */
interface FactRow {
  id: string
  occurredAt: Date
  recordedAt: Date
  personId: string
  deviceId: string | null
  supersedesId: string | null
  reason: string | null
  deleted: boolean
}

export interface ShopRow {
  id: string
  code: string
  name: string
  timeZone: string
  distanceUnit: 'km' | 'mi'
  demo: boolean
}
export interface PersonRow {
  id: string
  name: string
  initials: string
  signInName: string
  role: Role
  passwordHash: string
  pinHash: string | null
  active: boolean
  /** Kept in a demo shop only, to be shown on its sign-in page. */
  demoPassword: string | null
}
export interface DeviceRow {
  id: string
  name: string
  /** Of the token it keeps from one session to the next; null for one of before, or from an archive. */
  tokenHash: Buffer | null
  lastSeenAt: Date | null
}
export interface SessionRow {
  tokenHash: Buffer
  shopId: string
  deviceId: string
  personId: string
  lastSeenAt: Date
  expiresAt: Date
  provedAt: Date | null
}
export interface DevicePersonRow {
  deviceId: string
  personId: string
  role: Role
  invitedAt: Date
  lastHereAt: Date
}
export interface CustomerRow {
  id: string
  name: string
  phone: string | null
  houseRuleId: string | null
  /** Whose change mark counts, where their rule goes as marked. */
  markedInstrumentId: string | null
  /** Days between looks at each of the customer's bikes; null: as the shop has it. */
  rhythmDays: number | null
  /** Whether their chains are looked at whenever they are in. */
  eachVisit: boolean
  /** Who treats their chains between visits. */
  careAt: 'home' | 'workshop' | null
  /** The weekday that suits them, 1 Monday to 7 Sunday. */
  goodWeekday: number | null
  /** In which they are written to. */
  language: ReminderLanguage
  /** Since when they do not want to be. */
  optedOutAt: Date | null
  version: number
}
export interface HouseRuleRow {
  id: string
  school: School
  name: string | null
  isDefault: boolean
  markedInstrumentId: string | null
  retiredAt: Date | null
}
export interface HouseRuleVersionRow {
  id: string
  houseRuleId: string
  version: number
  limits: CoreHouseRule['limits']
  watchShare: number
  sprocketMarks: CoreHouseRule['sprocketMarks'] | null
  validFrom: Date
  personId: string | null
  reason: string | null
}
export interface AssumptionVersionRow {
  id: string
  version: number
  overrides: Record<string, number>
  validFrom: Date
  personId: string
  reason: string
}
export interface DecisionRow extends FactRow {
  bikeId: string
  chainId: string | null
  fittingId: string | null
  verdictId: string
  overruled: VerdictWord
  decision: 'ride-on' | 'spare' | 'change-early'
}
export interface BikeRow {
  id: string
  customerId: string
  label: string
  maker: string | null
  model: string | null
  kind: string
  tag: string
  frameMark: string | null
  notes: string
  odometerUnit: 'km' | 'mi'
  houseRuleId: string | null
  /** The instrument whose mark decides, where the rule is "as marked". */
  markedInstrumentId: string | null
  /** The day it was sold or left for good. */
  goneOn: string | null
  /** How long a treatment lasts on it; null: as the shop has it. */
  careKm: number | null
  careDays: number | null
  version: number
}
export interface DriveRow {
  id: string
  bikeId: string
  type: DriveType
  speeds: number
  fronts: number[]
  sprockets: number[]
  motor: boolean
  systemId: string | null
  /** The drivetrain's own level. */
  level: string | null
  ringWidth: WidthClass | null
  chainstayMm: number | null
  suspension: Suspension
  growthMm: number | null
  statedAdd: number | null
  pulleys: number[] | null
  pulleysCounted: boolean
  capacityTeeth: number | null
  largestSprocketTeeth: number | null
  /** Where an axle that takes up the slack can stand. */
  axleFromMm: number | null
  axleToMm: number | null
  takenOff: boolean
  /** Of a tandem's second chain: its two rings, and where the eccentric lets them stand. */
  timingTeeth: number[] | null
  timingFromMm: number | null
  timingToMm: number | null
  guide: 'front-derailleur' | 'chain-guide' | 'none' | null
  wideNarrow: boolean | null
  clutch: boolean | null
  cageLock: boolean | null
  discBrake: boolean | null
}
export interface DriveSystemRow {
  id: string
  name: string
  flatTop: boolean
  largeRoller: boolean
}
export interface PartRow {
  id: string
  kind: PartKind
  maker: string
  name: string
  /** What the kind is described by. */
  facts: object
  price: number | null
  stock: number
  reorderPoint: number
  version: number
  removedAt: Date | null
}
export interface StockMovementRow {
  id: string
  partId: string
  kind: 'received' | 'used' | 'counted'
  change: number
  stockAfter: number
  orderId: string | null
  keptId: string | null
  note: string | null
  occurredAt: Date
  recordedAt: Date
  personId: string
  deviceId: string | null
}
export interface KeptPartsRow {
  id: string
  bikeId: string
  state: 'kept' | 'used' | 'dropped'
  pitches: number | null
  keptAt: Date
  settledAt: Date | null
  personId: string
  version: number
}
export interface KeptPartLineRow {
  id: string
  keptId: string
  partId: string
  quantity: number
  included: boolean
  keptAt: Date
}
export interface SupplierOfferRow {
  partId: string
  sku: string
  price: number
  stock: number
  days: number
  askedAt: Date
}
export interface OrderRow {
  id: string
  state: 'sending' | 'unsure' | 'refused' | 'placed' | 'received' | 'cancelled'
  /** The supplier's own number. */
  number: string | null
  expectedOn: string | null
  problem: string | null
  tries: number
  sentAt: Date
  settledAt: Date | null
  personId: string
  version: number
}
export interface OrderLineRow {
  id: string
  orderId: string
  partId: string
  sku: string
  quantity: number
  price: number
  priceNow: number | null
  stockNow: number | null
  received: number
}
/** What chains are closed with, as a thing. */
/** A chain that broke. */
export interface MendRow extends FactRow {
  bikeId: string
  chainId: string
  pitches: number
  broken: PitchKind
  damaged: number[]
  option: MendOption | null
  cause: string
  choice: 'mended' | 'replace'
  advised: string
  followUpOn: string | null
}
/** What was seen of one of a bike's other parts. */
export interface WearCheckRow extends FactRow {
  bikeId: string
  item: WearItemId
  grade: ToothGrade | null
  result: WearResult | null
  typed: string | null
  mm: number | null
  minimumMm: number | null
  u: number | null
  renewed: boolean
  note: string | null
}
export interface CareEventRow extends FactRow {
  chainId: string
  bikeId: string | null
  kind: 'treated' | 'wash' | 'squeak'
  care: Treatment | null
  cleaning: Cleaning | null
  atHome: boolean
  note: string | null
}
export interface PotRow {
  id: string
  name: string
  capacity: number
  onSince: Date | null
  /** Where its thermometer answers, `host:port`, or the stand-in. */
  thermometer: string | null
  version: number
}
export interface PotChainRow {
  id: string
  chainId: string
  bikeId: string | null
  readyBy: Date | null
  needs: PotNeed
  recipe: PotRecipe
  condition: BathCondition
  notBefore: Date | null
  state: PotState
  potId: string | null
  since: Date
  addedAt: Date
  version: number
}
export interface PotEventRow {
  id: string
  potChainId: string
  potId: string | null
  cameFrom: PotState
  wentTo: PotState
  occurredAt: Date
  recordedAt: Date
  personId: string
  deviceId: string | null
}
export interface BathChangeRow {
  id: string
  potId: string
  occurredAt: Date
  personId: string
}
export interface JointRow {
  id: string
  kind: PresentJoint
  partId: string | null
  closingsBefore: number | null
}
export interface JointEventRow extends FactRow {
  jointId: string
  chainId: string
  kind: 'seen' | 'closed'
  click: 'firm' | 'weak' | 'none' | null
}
export interface ChainRow {
  id: string
  name: string
  partId: string | null
  pitches: number | null
  care: string
  fate: OldFate | null
  /** The bike in whose rotation it waits. */
  homeBikeId: string | null
  version: number
}
export interface JobRow {
  id: string
  bikeId: string
  state: 'open' | 'closed' | 'stopped' | 'undone'
  plan: JobPlan
  parts: JobParts
  keptId: string | null
  openedAt: Date
  closedAt: Date | null
  written: JobWritten | null
  personId: string
  version: number
}
export interface JobEventRow {
  id: string
  jobId: string
  kind: JobEvent['kind']
  detail: object
  occurredAt: Date
  recordedAt: Date
  personId: string
  deviceId: string | null
}
export interface OffcutRow {
  id: string
  chainId: string
  jobId: string
  pitches: number
  keptAt: Date
  goneAt: Date | null
}
export interface ChainEventRow extends FactRow {
  chainId: string
  kind: 'cut' | 'shortened' | 'rejoined'
  pitchesAfter: number | null
}
export interface FittingRow {
  id: string
  bikeId: string
  chainId: string
  during: readonly [{ value: Date; inclusive: boolean }, { value: Date | null; inclusive: boolean }]
  start: 'fitted' | 'stated' | 'unknown'
  endReason: string | null
  /** What its chain had been before, where it was kept by somebody; null where it was new. */
  cameFrom: { fate: OldFate | null; homeBikeId: string | null } | null
  personId: string
  recordedAt: Date
}
export interface DistanceEntryRow extends FactRow {
  bikeId: string
  kind: 'odometer' | 'statement' | 'chain-start'
  typed: string
  unit: 'km' | 'mi'
  km: number
  restarted: boolean
}
export interface RideRow extends FactRow {
  bikeId: string
  endedAt: Date
  km: number
  surface: Surface | null
  title: string | null
  source: 'typed' | 'file' | 'service'
  profile: { at: number; share: number }[] | null
  importId: string | null
  accountId: string | null
  externalId: string | null
}
export interface RideTrackRow {
  rideId: string
  points: Buffer
}
export interface RideImportRow {
  id: string
  bikeId: string
  personId: string
  startedAt: Date
  finishedAt: Date | null
  state: 'reading' | 'previewed' | 'done' | 'cancelled' | 'failed'
  files: number
  done: number
  report: ImportLine[]
  tables: RideImport['tables']
}
export interface StagedRideRow {
  id: string
  importId: string
  file: string
  ride: StagedRide
  points: Buffer | null
}
/** A ride as a file told it, waiting to be written. Moments in ms. */
export interface StagedRide {
  from: number
  to: number
  km: number
  title: string | null
  surface: Surface | null
  profile: { at: number; share: number }[]
}
export interface CsvMappingRow {
  header: string
  mapping: CsvMapping
}
export interface RideAccountRow {
  id: string
  bikeId: string
  address: string
  account: string
  token: string
  pulledTo: string | null
  pulledAt: Date | null
  outcome: PullOutcome | null
  removedAt: Date | null
}
export interface ForecastRunRow {
  id: string
  personId: string
  state: 'waiting' | 'running' | 'done' | 'cancelled' | 'failed'
  done: number
  of: number
  lastBikeId: string | null
  askedAt: Date
  startedAt: Date | null
  finishedAt: Date | null
}
export interface PriorVersionRow {
  id: string
  version: number
  learnedAt: Date
  personId: string
  groups: LearnedGroup[]
  unsaid: LearnedUnsaid | null
  undoneAt: Date | null
}
export interface InstrumentRow {
  id: string
  kind: InstrumentKind
  name: string
  connection: string | null
  retiredAt: Date | null
}
export interface InstrumentVersionRow {
  id: string
  instrumentId: string
  version: number
  uMm: number | null
  u: number | null
  bias: number
  biasU: number
  marks: number[] | null
  material: string | null
  rollerMm: number | null
  seesRollerWear: boolean
  changeMark: number | null
  standing: 'in-use' | 'out-of-use'
  reads: 'true' | 'early' | 'late' | null
  checkedOn: string | null
  checkedHow: string | null
  checkDetail: object | null
  validFrom: Date
  personId: string
  reason: string
}
export interface ReadingRow extends FactRow {
  bikeId: string
  chainId: string
  fittingId: string
  instrumentId: string
  instrumentVersionId: string
  distanceEntryId: string | null
  source: 'shop' | 'customer'
  run: 'lower' | 'upper'
  load: 'tensioned' | 'slack' | null
  ruleCelsius: number | null
  chainCelsius: number | null
  preloadKg: number | null
  readerId: string | null
  baseline: boolean
  signs: string[]
  hint: 'worn' | 'nothing' | null
  note: string | null
}
export interface SpotRow {
  id: string
  readingId: string
  readingOccurredAt: Date
  position: number
  place: number | null
  typed: string | null
  mode: string | null
  picture: string | null
  linkIncluded: boolean | null
  unit: 'mm' | 'in' | null
  pastMarkMm: number | null
  lengthMm: number | null
  pitches: number | null
  value: number | null
  over: number | null
  under: number | null
  u: number
  borderline: boolean
}
export interface VerdictRow extends FactRow {
  bikeId: string
  chainId: string | null
  fittingId: string | null
  readingId: string | null
  houseRuleVersionId: string
  word: VerdictWord
  probability: number | null
  input: VerdictInput
  outcome: ChainVerdict
}
export interface StudyRow {
  id: string
  instrumentId: string
  title: string
  people: string[]
  spots: PlanStudy['spots']
  repeats: number
  pitches: number | null
  referenceU: number
  startedAt: Date
  personId: string
  closedAt: Date | null
  result: StudyResult | null
}
export interface StudyValueRow {
  id: string
  studyId: string
  personId: string
  deviceId: string | null
  recordedAt: Date
  supersedesId: string | null
  spot: number
  repeat: number
  typed: string
  value: number | null
}
export interface VisitRow {
  id: string
  bikeId: string
  day: string
  position: number
  promisedAt: Date | null
  reason: string
  state: 'waiting' | 'on-stand' | 'done' | 'called-off'
  /** What it is to take; null where nobody said. */
  minutes: number | null
  bookedAt: Date | null
  onStandSince: Date | null
  deviceId: string | null
  version: number
}
export interface BikeStateRow {
  bikeId: string
  chainId: string | null
  fittingId: string | null
  verdictId: string | null
  houseRuleVersionId: string
  word: VerdictWord
  advice: SprocketAdvice | null
  flags: VerdictFlag[]
  probability: number | null
  median: number | null
  limitAt: number
  marks: SpotMark[]
  measuredAt: Date | null
  checkOn: string | null
  /** Whether it is looked at whenever it is in. */
  eachVisit: boolean
  chainKm: number | null
  /** The last day on which the verdict's round still describes the chain; null where nothing was measured. */
  presentUntil: string | null
  /** The first day on which it is to be measured whatever its verdict said; null where none comes. */
  measureFrom: string | null
  /** The forecast by days: from the last recorded moment, the days after it that reach each chance kept; null where none is shown. */
  outlookFrom: string | null
  outlookReached: number[] | null
  /** The day a change that stands was measured; null where none does, or it was decided otherwise. */
  changeOn: string | null
  searchText: string
  lastFactId: string | null
  /** The decision that stands beside the verdict, if a mechanic decided otherwise. */
  decisionId: string | null
  decision: DecisionRow['decision'] | null
  /** When the chain will be over its limit, as of the last recorded moment; null with no forecast at all. */
  forecast: ChainForecast | null
  /** The day by which it is over with an even chance; null when no forecast is shown or it lies too far. */
  overOn: string | null
  /** Kilometres by surface over everything recorded. */
  mix: SurfaceKm | null
  /** What the bike is ridden, where that is recorded and not assumed. */
  kmPerDay: number | null
  /** When the chain is treated next, as of the last fact; null where its care is not known. */
  care: CareNext | null
  careOn: string | null
  /** The first day anything else that wears is looked at again. */
  wearOn: string | null
}
export interface AuditRow {
  id: string
  at: Date
  personId: string | null
  deviceId: string | null
  requestId: string | null
  action: string
  subjectKind: string
  subjectId: string
  detail: object
}
export interface IdempotencyKeyRow {
  key: string
  requestHash: string
  status: number | null
  response: unknown
}
