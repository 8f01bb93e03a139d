import type { Model } from 'sequelize'
import { DataTypes, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize'
import type * as rows from './rows.ts'

const id = { type: DataTypes.UUID, primaryKey: true }
const uuid = { type: DataTypes.UUID }
const text = { type: DataTypes.TEXT }
const integer = { type: DataTypes.INTEGER }
const real = { type: DataTypes.DOUBLE }
const moment = { type: DataTypes.DATE }
const day = { type: DataTypes.DATEONLY }
const flag = { type: DataTypes.BOOLEAN }
const json = { type: DataTypes.JSONB }
const bytes = { type: DataTypes.BLOB }

const fact = {
  id,
  occurredAt: moment,
  recordedAt: moment,
  personId: uuid,
  deviceId: uuid,
  supersedesId: uuid,
  reason: text,
  deleted: flag,
}

/**
 * Models of every table. None has its `shop_id`: the database fills it in from the transaction's shop and hides
 * other shops' rows, so code cannot name a shop wrongly, or forget it.
 */
export function defineModels(sequelize: Sequelize) {
  const table = <Row extends object>(
    name: string,
    attributes: Record<keyof Row, { type: unknown; primaryKey?: boolean }>,
  ): ModelStatic<Model<Row, Partial<Row>> & Row> =>
    // Sequelize writes into the attributes it is given, so each table gets its own.
    sequelize.define(
      name,
      Object.fromEntries(
        Object.entries<object>(attributes).map(([key, attribute]) => [key, { ...attribute }]),
      ) as unknown as ModelAttributes,
    ) as unknown as ModelStatic<Model<Row, Partial<Row>> & Row>

  return {
    Shop: table<rows.ShopRow>('shops', { id, code: text, name: text, timeZone: text, distanceUnit: text, demo: flag }),
    Person: table<rows.PersonRow>('people', {
      id,
      name: text,
      initials: text,
      signInName: text,
      role: text,
      passwordHash: text,
      pinHash: text,
      active: flag,
      demoPassword: text,
    }),
    Device: table<rows.DeviceRow>('devices', { id, name: text }),
    Session: table<rows.SessionRow>('sessions', {
      tokenHash: { ...bytes, primaryKey: true },
      shopId: uuid,
      deviceId: uuid,
      personId: uuid,
      lastSeenAt: moment,
      expiresAt: moment,
    }),
    SessionPerson: table<rows.SessionPersonRow>('session_people', {
      tokenHash: { ...bytes, primaryKey: true },
      personId: { ...uuid, primaryKey: true },
    }),
    Customer: table<rows.CustomerRow>('customers', {
      id,
      name: text,
      phone: text,
      houseRuleId: uuid,
      version: integer,
    }),
    HouseRule: table<rows.HouseRuleRow>('house_rules', { id, school: text, name: text, isDefault: flag }),
    HouseRuleVersion: table<rows.HouseRuleVersionRow>('house_rule_versions', {
      id,
      houseRuleId: uuid,
      version: integer,
      limits: json,
      watchShare: real,
      validFrom: moment,
      personId: uuid,
    }),
    Bike: table<rows.BikeRow>('bikes', {
      id,
      customerId: uuid,
      label: text,
      maker: text,
      model: text,
      kind: text,
      tag: text,
      frameMark: text,
      notes: text,
      odometerUnit: text,
      houseRuleId: uuid,
      version: integer,
    }),
    Drive: table<rows.DriveRow>('drives', {
      id,
      bikeId: uuid,
      type: text,
      speeds: integer,
      fronts: { type: DataTypes.ARRAY(DataTypes.INTEGER) },
      sprockets: { type: DataTypes.ARRAY(DataTypes.INTEGER) },
      motor: flag,
    }),
    Chain: table<rows.ChainRow>('chains', { id, name: text, pitches: integer, care: text }),
    ChainEvent: table<rows.ChainEventRow>('chain_events', {
      ...fact,
      chainId: uuid,
      kind: text,
      pitchesAfter: integer,
    }),
    Fitting: table<rows.FittingRow>('fittings', {
      id,
      bikeId: uuid,
      chainId: uuid,
      during: { type: DataTypes.RANGE(DataTypes.DATE) },
      start: text,
      endReason: text,
      personId: uuid,
      recordedAt: moment,
    }),
    DistanceEntry: table<rows.DistanceEntryRow>('distance_entries', {
      ...fact,
      bikeId: uuid,
      kind: text,
      typed: text,
      unit: text,
      km: real,
      restarted: flag,
    }),
    Instrument: table<rows.InstrumentRow>('instruments', { id, kind: text, name: text, retiredAt: moment }),
    InstrumentVersion: table<rows.InstrumentVersionRow>('instrument_versions', {
      id,
      instrumentId: uuid,
      version: integer,
      uMm: real,
      u: real,
      bias: real,
      biasU: real,
      marks: { type: DataTypes.ARRAY(DataTypes.DOUBLE) },
      checkedOn: day,
      validFrom: moment,
      personId: uuid,
      reason: text,
    }),
    Reading: table<rows.ReadingRow>('readings', {
      ...fact,
      bikeId: uuid,
      chainId: uuid,
      fittingId: uuid,
      instrumentId: uuid,
      instrumentVersionId: uuid,
      distanceEntryId: uuid,
      source: text,
      hint: text,
      note: text,
    }),
    Spot: table<rows.SpotRow>('spots', {
      id,
      readingId: uuid,
      readingOccurredAt: moment,
      position: integer,
      place: integer,
      typed: text,
      unit: text,
      pastMarkMm: real,
      lengthMm: real,
      pitches: integer,
      value: real,
      over: real,
      under: real,
      u: real,
    }),
    Verdict: table<rows.VerdictRow>('verdicts', {
      ...fact,
      bikeId: uuid,
      chainId: uuid,
      fittingId: uuid,
      readingId: uuid,
      houseRuleVersionId: uuid,
      word: text,
      probability: real,
      input: json,
      outcome: json,
    }),
    Visit: table<rows.VisitRow>('visits', {
      id,
      bikeId: uuid,
      day,
      position: real,
      promisedAt: moment,
      reason: text,
      state: text,
      onStandSince: moment,
      deviceId: uuid,
      version: integer,
    }),
    BikeState: table<rows.BikeStateRow>('bike_state', {
      bikeId: { ...uuid, primaryKey: true },
      chainId: uuid,
      fittingId: uuid,
      verdictId: uuid,
      houseRuleVersionId: uuid,
      word: text,
      advice: text,
      flags: { type: DataTypes.ARRAY(DataTypes.TEXT) },
      probability: real,
      median: real,
      limitAt: real,
      marks: json,
      measuredAt: moment,
      checkOn: day,
      chainKm: real,
      troubleRank: integer,
      troubleOn: day,
      searchText: text,
      lastFactId: uuid,
    }),
    Audit: table<rows.AuditRow>('audit', {
      id,
      at: moment,
      personId: uuid,
      deviceId: uuid,
      requestId: text,
      action: text,
      subjectKind: text,
      subjectId: uuid,
      detail: json,
    }),
    IdempotencyKey: table<rows.IdempotencyKeyRow>('idempotency_keys', {
      key: { ...text, primaryKey: true },
      requestHash: text,
      status: integer,
      response: json,
    }),
  }
}

export type Models = ReturnType<typeof defineModels>
