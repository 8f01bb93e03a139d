/**
 * Names of the inks a drawing is made of; the screen's theme and the printed page each have colours for them. `own` is that of
 * what the drawing says, such as a verdict's: whoever draws it gives it.
 */
export type InkName =
  'own' | 'paper' | 'sheet' | 'blade' | 'edge' | 'line' | 'ink' | 'faint' | 'steel' | 'brass' | 'madder'

/** How an outline is filled and drawn round. */
interface Inked {
  readonly fill?: InkName
  readonly stroke?: InkName
  readonly width?: number
  readonly opacity?: number
}

/** One thing drawn, in the drawing's own units. Whoever draws it, on screen or on paper, draws the same. */
export type Shape =
  | (Inked & {
      readonly kind: 'path'
      /** SVG path data. */
      readonly d: string
      readonly evenOdd?: boolean
      readonly dash?: readonly number[]
      readonly round?: boolean
    })
  | (Inked & { readonly kind: 'circle'; readonly cx: number; readonly cy: number; readonly r: number })
  | (Inked & {
      readonly kind: 'rect'
      readonly x: number
      readonly y: number
      readonly w: number
      readonly h: number
      readonly r: number
    })
  | {
      readonly kind: 'text'
      readonly x: number
      readonly y: number
      readonly text: string
      readonly size: number
      readonly anchor: 'start' | 'middle' | 'end'
      readonly fill: InkName
    }

/** A drawing with its size. */
export interface Drawing {
  readonly width: number
  readonly height: number
  readonly shapes: readonly Shape[]
}

export const linePath = (x1: number, y1: number, x2: number, y2: number): string => `M${x1} ${y1}L${x2} ${y2}`
