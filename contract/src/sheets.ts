import { GEAR_VERDICTS } from '@pelrin/core'
import * as v from 'valibot'
import { SpotMark } from './bikes.ts'
import { Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { VerdictWord } from './limits.ts'

export const SHEET_KINDS = ['customer', 'rider', 'at-home', 'carry-card'] as const
export const SheetKind = v.picklist(SHEET_KINDS, 'sheet-unknown')
export type SheetKind = v.InferOutput<typeof SheetKind>

/** One piece of a sheet, its words ready: screen and page show the same. */
export const SheetBlock = v.variant('kind', [
  v.object({ kind: v.literal('heading'), text: v.string() }),
  v.object({ kind: v.literal('text'), text: v.string(), strong: v.boolean() }),
  v.object({ kind: v.literal('verdict'), word: VerdictWord, text: v.string() }),
  v.object({
    kind: v.literal('rule'),
    word: VerdictWord,
    marks: v.array(SpotMark),
    limit: v.number(),
    watch: v.nullable(v.number()),
    caption: v.string(),
  }),
  /** A step with its drawing, by its name among the drawings; null where there is nothing to look at. */
  v.object({
    kind: v.literal('step'),
    number: v.number(),
    drawn: v.nullable(v.string()),
    what: v.string(),
    why: v.string(),
  }),
  v.object({ kind: v.literal('list'), items: v.array(v.string()) }),
  v.object({ kind: v.literal('bill'), rows: v.array(v.object({ name: v.string(), value: v.string() })) }),
  v.object({ kind: v.literal('teeth'), captions: v.object({ 'as-new': v.string(), done: v.string() }) }),
  v.object({
    kind: v.literal('reach'),
    gears: v.array(
      v.object({
        front: v.number(),
        rear: v.number(),
        slack: v.number(),
        verdict: v.picklist(GEAR_VERDICTS),
      }),
    ),
    caption: v.string(),
  }),
])
export type SheetBlock = v.InferOutput<typeof SheetBlock>

/** A sheet for a customer, written in their language and zone. */
export const Sheet = v.object({
  kind: SheetKind,
  title: v.string(),
  head: v.string(),
  bike: v.string(),
  madeAt: Moment,
  blocks: v.array(SheetBlock),
})
export type Sheet = v.InferOutput<typeof Sheet>

export const sheetsEndpoints = {
  sheet: endpoint({
    name: 'sheet',
    method: 'GET',
    path: '/bikes/:id/sheets/:kind',
    summary: 'A sheet to hand to a customer, its words and drawings. As a PDF: the same address with .pdf behind it.',
    access: 'signed-in',
    params: v.object({ id: Id, kind: SheetKind }),
    query: v.object({ locale: v.optional(v.pipe(v.string(), v.maxLength(40, 'text-too-long')), 'en-GB') }),
    result: Sheet,
  }),
}
