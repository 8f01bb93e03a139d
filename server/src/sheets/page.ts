import { createRequire } from 'node:module'
import type { Sheet, SheetBlock } from '@pelrin/contract'
import {
  plateDrawing,
  stepDrawing,
  STEP_DRAWINGS,
  teethDrawing,
  VERDICT_PLATE,
  wearRule,
  type Drawing,
  type InkName,
} from '@pelrin/drawn'
import PDFDocument from 'pdfkit'
import type { Words } from './words.ts'

const require = createRequire(import.meta.url)
const font = (weight: 400 | 600 | 700): string =>
  require.resolve(`@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-${weight}-normal.woff`)
const FONTS = { plain: font(400), strong: font(600), heavy: font(700) } as const

/** Inks as a printer has them: the paper stays white. */
const INKS: Readonly<Record<Exclude<InkName, 'own'>, string>> = {
  paper: '#ffffff',
  sheet: '#ffffff',
  blade: '#e3e7e8',
  edge: '#1d2328',
  line: '#cfcabd',
  ink: '#1d2328',
  faint: '#595e62',
  steel: '#2b4a66',
  brass: '#7d5a0c',
  madder: '#9c2438',
}

/** Points; A4, and a card as large as one of a wallet. */
const A4 = { size: [595.28, 841.89], margin: 44, title: 23, heading: 13, text: 10.5 } as const
const CARD = { size: [243, 153], margin: 12, title: 13, heading: 9, text: 8.6 } as const
type Measures = typeof A4 | typeof CARD

/** A sheet as a PDF. */
export function sheetAsPdf(sheet: Sheet, words: Words): Promise<Buffer> {
  const page = new Page(sheet.kind === 'carry-card' ? CARD : A4, words)
  return page.write(sheet)
}

class Page {
  private readonly doc: PDFKit.PDFDocument
  private readonly width: number

  constructor(
    private readonly measures: Measures,
    private readonly words: Words,
  ) {
    const { size, margin } = measures
    this.width = size[0] - 2 * margin
    this.doc = new PDFDocument({ size: [...size], margin, bufferPages: true, lang: words.locale })
    for (const [name, file] of Object.entries(FONTS)) this.doc.registerFont(name, file)
  }

  write({ title, head, bike, madeAt, blocks, kind }: Sheet): Promise<Buffer> {
    const { doc, measures } = this
    Object.assign(doc.info, { Title: title, CreationDate: new Date(madeAt) })
    const done = new Promise<Buffer>((resolve, reject) => {
      const parts: Buffer[] = []
      doc.on('data', (part: Buffer) => parts.push(part))
      doc.on('end', () => resolve(Buffer.concat(parts)))
      doc.on('error', reject)
    })
    doc.font('plain', measures.text).fillColor(INKS.faint).text(head)
    doc.font('heavy', measures.title).fillColor(INKS.ink).text(title)
    doc.font('strong', measures.text).text(bike)
    doc.moveDown(kind === 'carry-card' ? 0.3 : 0.7)
    for (const block of blocks) this.block(block)
    if (kind !== 'carry-card') this.numberPages()
    doc.end()
    return done
  }

  private block(block: SheetBlock): void {
    const { doc, measures } = this
    const { text } = measures
    switch (block.kind) {
      case 'heading':
        this.room(60)
        doc.moveDown(0.45)
        doc.font('heavy', measures.heading).fillColor(INKS.steel).text(block.text)
        doc.moveDown(0.15)
        return
      case 'text':
        this.room(30)
        doc
          .font(block.strong ? 'strong' : 'plain', text)
          .fillColor(INKS.ink)
          .text(block.text, { lineGap: 1.5 })
        return
      case 'list':
        for (const item of block.items) {
          this.room(24)
          doc.font('plain', text).fillColor(INKS.ink)
          const { y } = doc
          doc.text('–', { continued: false })
          doc.text(item, measures.margin + text, y, { width: this.width - text, lineGap: 1.5 })
          doc.x = measures.margin
        }
        return
      case 'verdict': {
        const { plate, colour } = VERDICT_PLATE[block.word]
        const { y } = doc
        this.drawing(plateDrawing(plate), measures.margin, y + 3, 44, INKS[colour])
        doc
          .font('heavy', 22)
          .fillColor(INKS[colour])
          .text(block.text, measures.margin + 56, y)
        doc.x = measures.margin
        doc.moveDown(0.3)
        return
      }
      case 'rule': {
        const drawn = wearRule({
          size: 'large',
          marks: block.marks,
          limit: block.limit,
          ...(block.watch === null ? {} : { watch: block.watch }),
          numeral: (value) => this.words.number(value, 2),
        })
        const { colour } = VERDICT_PLATE[block.word]
        doc.y += this.drawing(drawn, measures.margin, doc.y, this.width, INKS[colour]) + 4
        doc
          .font('plain', text - 1.5)
          .fillColor(INKS.faint)
          .text(block.caption)
        doc.moveDown(0.4)
        return
      }
      case 'step':
        this.step(block)
        return
      case 'bill':
        this.room(20 * block.rows.length)
        for (const [i, { name, value }] of block.rows.entries()) {
          const last = i === block.rows.length - 1
          const { y } = doc
          doc.font(last ? 'heavy' : 'plain', text).fillColor(INKS.ink)
          doc.text(name, measures.margin, y + 2, { width: this.width * 0.75 })
          const after = doc.y
          doc.text(value, measures.margin, y + 2, { width: this.width, align: 'right' })
          doc.y = Math.max(after, doc.y) + 2
          doc.lineWidth(0.5).strokeColor(INKS.line)
          doc
            .moveTo(measures.margin, doc.y)
            .lineTo(measures.margin + this.width, doc.y)
            .stroke()
        }
        doc.x = measures.margin
        doc.moveDown(0.3)
        return
      case 'teeth': {
        this.room(80)
        const wide = 86
        const { y } = doc
        let below = y
        for (const [i, grade] of (['as-new', 'done'] as const).entries()) {
          const x = measures.margin + i * (wide + 40)
          const tall = this.drawing(teethDrawing(grade), x, y + 4, wide, INKS.ink)
          doc.font('plain', text - 1.5).fillColor(INKS.faint)
          doc.text(block.captions[grade], x, y + tall + 8, { width: wide, align: 'center' })
          below = Math.max(below, doc.y)
        }
        doc.x = measures.margin
        doc.y = below
        return
      }
      case 'reach':
        this.reach(block)
        return
    }
  }

  /** A step: its number, what is done and why, and beside it what it looks like. */
  private step({ number, what, why, drawn }: Extract<SheetBlock, { kind: 'step' }>): void {
    const { doc, measures } = this
    const { text, margin } = measures
    const [left, wide] = [22, 132]
    const width = this.width - left - wide - 14
    const known = STEP_DRAWINGS.find((one) => one === drawn)
    doc.font('strong', text)
    const tall = doc.heightOfString(what, { width }) + doc.font('plain', text - 1).heightOfString(why, { width })
    this.room(Math.max(tall, known ? 62 : 0) + 14)
    const { y } = doc
    doc.lineWidth(0.5).strokeColor(INKS.line)
    doc
      .moveTo(margin, y + 2)
      .lineTo(margin + this.width, y + 2)
      .stroke()
    doc
      .font('heavy', text)
      .fillColor(INKS.steel)
      .text(String(number), margin, y + 6)
    doc
      .font('strong', text)
      .fillColor(INKS.ink)
      .text(what, margin + left, y + 6, { width })
    doc
      .font('plain', text - 1)
      .fillColor(INKS.faint)
      .text(why, margin + left, doc.y, { width })
    const below = doc.y
    const drawnTall = known ? this.drawing(stepDrawing(known), margin + this.width - wide, y + 6, wide, INKS.ink) : 0
    doc.x = margin
    doc.y = Math.max(below, y + 6 + drawnTall) + 5
  }

  /** Which gears are reached, ring by ring: crossed out where too short, ringed where it hangs loose. */
  private reach({ gears, caption }: Extract<SheetBlock, { kind: 'reach' }>): void {
    const { doc, measures } = this
    const fronts = [...new Set(gears.map(({ front }) => front))].sort((a, b) => b - a)
    const rears = [...new Set(gears.map(({ rear }) => rear))].sort((a, b) => a - b)
    const [wide, tall] = [Math.min(34, (this.width - 34) / rears.length), 20]
    this.room((fronts.length + 2) * tall)
    doc.moveDown(0.4)
    const top = doc.y
    doc.font('strong', measures.text - 1)
    const cell = (words: string, column: number, row: number, colour: string): void => {
      doc.fillColor(colour)
      doc.text(words, measures.margin + column * wide, top + row * tall + 5, { width: wide, align: 'center' })
    }
    for (const [i, rear] of rears.entries()) cell(String(rear), i + 1, 0, INKS.faint)
    for (const [j, front] of fronts.entries()) {
      cell(String(front), 0, j + 1, INKS.faint)
      for (const [i, rear] of rears.entries()) {
        const gear = gears.find((one) => one.front === front && one.rear === rear)
        const [x, y] = [measures.margin + (i + 1) * wide, top + (j + 1) * tall]
        doc.lineWidth(0.7).strokeColor(INKS.edge).rect(x, y, wide, tall).stroke()
        if (gear?.verdict === 'forbidden') {
          doc.lineWidth(1.6).strokeColor(INKS.madder)
          doc
            .moveTo(x + 4, y + 4)
            .lineTo(x + wide - 4, y + tall - 4)
            .stroke()
          doc
            .moveTo(x + wide - 4, y + 4)
            .lineTo(x + 4, y + tall - 4)
            .stroke()
        } else if (gear?.verdict === 'loose')
          doc
            .lineWidth(1.2)
            .strokeColor(INKS.brass)
            .circle(x + wide / 2, y + tall / 2, 6)
            .stroke()
      }
    }
    doc.x = measures.margin
    doc.y = top + (fronts.length + 1) * tall + 4
    doc
      .font('plain', measures.text - 1.5)
      .fillColor(INKS.faint)
      .text(caption)
  }

  /** @returns how tall it came out */
  private drawing({ width, height, shapes }: Drawing, x: number, y: number, wide: number, own: string): number {
    const { doc } = this
    const scale = wide / width
    const ink = (name: InkName): string => (name === 'own' ? own : INKS[name])
    doc.save().translate(x, y).scale(scale)
    for (const shape of shapes) {
      if (shape.kind === 'text') {
        doc.font('strong', shape.size).fillColor(ink(shape.fill))
        const long = doc.widthOfString(shape.text)
        const from = shape.anchor === 'start' ? 0 : shape.anchor === 'end' ? long : long / 2
        doc.text(shape.text, shape.x - from, shape.y - shape.size * 0.95, { lineBreak: false })
        continue
      }
      doc.opacity(shape.opacity ?? 1)
      if (shape.kind === 'circle') doc.circle(shape.cx, shape.cy, shape.r)
      else if (shape.kind === 'rect')
        doc.roundedRect(shape.x, shape.y, shape.w, shape.h, Math.min(shape.r, shape.h / 2))
      else {
        doc.path(shape.d)
        if (shape.dash) doc.dash(shape.dash[0] ?? 1, { space: shape.dash[1] ?? 1 })
        doc.lineJoin(shape.round === true ? 'round' : 'miter')
      }
      const rule = shape.kind === 'path' && shape.evenOdd === true ? 'even-odd' : 'non-zero'
      if (shape.stroke !== undefined) doc.lineWidth(shape.width ?? 1)
      if (shape.fill !== undefined && shape.stroke !== undefined)
        doc.fillAndStroke(ink(shape.fill), ink(shape.stroke), rule)
      else if (shape.fill !== undefined) doc.fill(ink(shape.fill), rule)
      else if (shape.stroke !== undefined) doc.stroke(ink(shape.stroke))
      doc.undash()
    }
    doc.restore()
    doc.opacity(1)
    doc.x = this.measures.margin
    doc.y = y
    return height * scale
  }

  /** Begins another page where what follows has no room on this one. */
  private room(tall: number): void {
    const { doc, measures } = this
    if (measures === A4 && doc.y + tall > measures.size[1] - measures.margin) doc.addPage()
  }

  private numberPages(): void {
    const { doc, measures } = this
    const { count } = doc.bufferedPageRange()
    if (count < 2) return
    for (let i = 0; i < count; i++) {
      doc.switchToPage(i)
      // Below the margin a line would begin a page of its own.
      doc.page.margins.bottom = 0
      doc.font('plain', 9).fillColor(INKS.faint)
      doc.text(this.words.t('sheet.pageOf', { page: i + 1, pages: count }), measures.margin, measures.size[1] - 34, {
        width: this.width,
        align: 'right',
        lineBreak: false,
      })
    }
  }
}
