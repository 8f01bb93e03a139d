import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Id, line, Moment, SortWay } from './common.ts'
import { endpoint } from './endpoint.ts'
import { ChainModel, DriveSystem, JointModel, PartKind } from './partModels.ts'

/** A part in words, field by field: what forms send and tables hold. The core's `readPart` says what each means. */
export const PartCells = v.record(v.string(), v.pipe(v.string('field-invalid'), v.maxLength(500, 'text-too-long')))
export type PartCells = v.InferOutput<typeof PartCells>

/** A part as a list shows it. */
export const CatalogueLine = v.object({
  id: Id,
  kind: PartKind,
  maker: v.string(),
  name: v.string(),
  /** What matters of its kind, such as speeds or teeth. */
  speeds: v.array(v.number()),
  teeth: v.array(v.number()),
  price: v.nullable(v.number()),
  stock: v.number(),
  /** Held back for bikes. */
  kept: v.number(),
  /** Ordered, and not here yet. */
  onOrder: v.number(),
  reorderPoint: v.number(),
  /** Whether it is time to order: what is free and on order does not reach over the reorder point. */
  low: v.boolean(),
})
export type CatalogueLine = v.InferOutput<typeof CatalogueLine>

export const StockMovement = v.object({
  id: Id,
  kind: v.picklist(['received', 'used', 'counted']),
  change: v.number(),
  stockAfter: v.number(),
  occurredAt: Moment,
  person: v.string(),
  note: v.nullable(v.string()),
})
export type StockMovement = v.InferOutput<typeof StockMovement>

/** What a supplier said of a part. */
export const Offer = v.object({
  partId: Id,
  sku: v.string(),
  price: v.number(),
  stock: v.number(),
  days: v.number(),
  askedAt: Moment,
})
export type Offer = v.InferOutput<typeof Offer>

export const CatalogueItem = v.object({
  ...CatalogueLine.entries,
  version: v.number(),
  cells: PartCells,
  movements: v.array(StockMovement),
  /** Bikes it is kept for. */
  keptFor: v.array(v.object({ bikeId: Id, bike: v.string(), quantity: v.number() })),
  offer: v.nullable(Offer),
})
export type CatalogueItem = v.InferOutput<typeof CatalogueItem>

/** What became, or would become, of one row of a table. */
export const RowOutcome = v.object({
  /** Counted as the file's lines of data are, from 1. */
  row: v.number(),
  outcome: v.picklist(['new', 'changed', 'same', 'wrong']),
  name: v.string(),
  /** What changes, in words. */
  changes: v.array(v.object({ field: v.string(), from: v.string(), to: v.string() })),
  problems: v.array(v.object({ field: v.string(), code: v.string(), cell: v.string() })),
})
export type RowOutcome = v.InferOutput<typeof RowOutcome>

/** Which column holds which field; a column not named is left out. */
export const TableMapping = v.record(v.string(), v.string())
export type TableMapping = v.InferOutput<typeof TableMapping>

export const CataloguePreview = v.object({
  header: v.array(v.string()),
  /** The first rows as they stand, for saying what the columns mean. */
  sample: v.array(v.array(v.string())),
  mapping: TableMapping,
  counts: v.object({ new: v.number(), changed: v.number(), same: v.number(), wrong: v.number() }),
  /** Rows of each outcome, what is wrong first, as many as a screen can show. */
  rows: v.array(RowOutcome),
  /** A file this was worked out from; sent back with the import, so that no other is taken. */
  fingerprint: v.string(),
})
export type CataloguePreview = v.InferOutput<typeof CataloguePreview>

export const CatalogueImported = v.object({ added: v.number(), changed: v.number(), left: v.number() })
export type CatalogueImported = v.InferOutput<typeof CatalogueImported>

/** What the catalogue can be put in order by, beside maker and name. */
export const CATALOGUE_SORTS = ['kind', 'stock', 'price'] as const
export type CatalogueSort = (typeof CATALOGUE_SORTS)[number]

export const catalogueEndpoints = {
  catalogue: endpoint({
    name: 'catalogue',
    method: 'GET',
    path: '/catalogue',
    summary: 'A page of the catalogue with what is in stock.',
    access: 'signed-in',
    query: v.object({
      q: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(60, 'text-too-long'))),
      kind: v.optional(PartKind),
      /** Only what is to be ordered. */
      low: v.optional(v.picklist(['yes'], 'field-invalid')),
      /** By what else than maker and name. */
      sort: v.optional(v.picklist(CATALOGUE_SORTS, 'field-invalid')),
      way: v.optional(SortWay, 'up'),
      cursor: v.optional(v.pipe(v.string(), v.maxLength(400, 'cursor-malformed'))),
    }),
    result: v.object({
      parts: v.array(CatalogueLine),
      next: v.nullable(v.string()),
      total: v.number(),
      low: v.number(),
    }),
  }),
  matchingCatalogue: endpoint({
    name: 'matchingCatalogue',
    method: 'GET',
    path: '/catalogue/matching',
    summary: 'Every chain and joint with its facts, for matching away from the server.',
    access: 'signed-in',
    result: v.object({ version: v.number(), chains: v.array(ChainModel), joints: v.array(JointModel) }),
  }),
  cataloguePart: endpoint({
    name: 'cataloguePart',
    method: 'GET',
    path: '/catalogue/:id',
    summary: 'One part with its stock movements.',
    access: 'signed-in',
    params: ById,
    result: CatalogueItem,
  }),
  addPart: endpoint({
    name: 'addPart',
    method: 'POST',
    path: '/catalogue',
    summary: 'Add a part.',
    access: 'stock',
    creates: true,
    body: v.object({ id: Id, cells: PartCells }),
    result: CatalogueItem,
  }),
  changePart: endpoint({
    name: 'changePart',
    method: 'PATCH',
    path: '/catalogue/:id',
    summary: 'Change what is known of a part.',
    access: 'stock',
    versioned: true,
    params: ById,
    body: v.object({ cells: PartCells }),
    result: CatalogueItem,
  }),
  removePart: endpoint({
    name: 'removePart',
    method: 'DELETE',
    path: '/catalogue/:id',
    summary: 'Take a part out of the catalogue. Its movements stay.',
    access: 'stock',
    versioned: true,
    params: ById,
  }),
  moveStock: endpoint({
    name: 'moveStock',
    method: 'POST',
    path: '/catalogue/:id/movements',
    summary: 'Write down that a part came, was used, or was counted.',
    access: 'stock',
    creates: true,
    params: ById,
    body: v.object({
      id: Id,
      kind: v.picklist(['received', 'used', 'counted'], 'field-invalid'),
      /** How many came, were used, or are there. */
      quantity: v.pipe(
        v.number('number-malformed'),
        v.integer('number-whole'),
        v.minValue(0, 'stock-negative'),
        v.maxValue(100_000, 'number-large'),
      ),
      note: v.optional(v.nullable(line(120)), null),
    }),
    result: CatalogueItem,
  }),
  systems: endpoint({
    name: 'systems',
    method: 'GET',
    path: '/systems',
    summary: 'Families of drivetrain parts made for each other.',
    access: 'signed-in',
    result: v.array(DriveSystem),
  }),
}
