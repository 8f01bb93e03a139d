import type { PartKind } from '@pelrin/core'
import { integer, json, key, maybe, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const PARTS = table('parts', {
  id: key(uuid()),
  kind: text<PartKind>(),
  maker: text(),
  name: text(),
  /** What the kind is described by. */
  facts: json<object>(),
  price: maybe(integer()),
  stock: usually(integer(), null),
  reorderPoint: usually(integer(), null),
  version: usually(integer(), null),
  removedAt: maybe(moment()),
})
export type PartRow = RowOf<typeof PARTS>

/** Counted up by whatever changes a part, for those who keep the catalogue away from the server. */
export const CATALOGUE_VERSIONS = table('catalogue_versions', {
  version: integer(),
})
export type CatalogueVersionRow = RowOf<typeof CATALOGUE_VERSIONS>
