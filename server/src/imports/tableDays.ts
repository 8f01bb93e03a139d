import dayjs from 'dayjs'
import customParseFormat from 'dayjs/plugin/customParseFormat.js'
import type { DaysWritten } from '@pelrin/contract'

dayjs.extend(customParseFormat)

const CLOCKS = ['', ' HH:mm', ' HH:mm:ss', 'THH:mm', 'THH:mm:ss', ', HH:mm', ', HH:mm:ss', ' h:mm A', ', h:mm A']
const YEAR_FIRST = ['YYYY-MM-DD', 'YYYY/MM/DD', 'YYYY.MM.DD']
const DAY_FIRST = ['DD.MM.YYYY', 'D.M.YYYY', 'DD/MM/YYYY', 'D/M/YYYY', 'DD-MM-YYYY', 'D-M-YYYY', 'D MMM YYYY']
const MONTH_FIRST = [
  'MM/DD/YYYY',
  'M/D/YYYY',
  'MM-DD-YYYY',
  'M-D-YYYY',
  'MM.DD.YYYY',
  'M.D.YYYY',
  'MMM D YYYY',
  'MMM D, YYYY',
]

/** A day or a moment as tables write it, as YYYY-MM-DD or YYYY-MM-DDTHH:mm:ss; null when it cannot be read. */
export function plainMoment(text: string, dayFirst: boolean): string | null {
  for (const day of [...YEAR_FIRST, ...(dayFirst ? DAY_FIRST : MONTH_FIRST)])
    for (const clock of CLOCKS) {
      const at = dayjs(text, day + clock, true)
      if (at.isValid()) return at.format(clock === '' ? 'YYYY-MM-DD' : 'YYYY-MM-DDTHH:mm:ss')
    }
  return null
}

/** Two numbers and a year: which of the two is the day, only their size or somebody tells. */
const BY_ORDER = /^(\d{1,2})[./-](\d{1,2})[./-]\d{4}(?!\d)/
const EXAMPLES = 3
const MONTHS = 12

/** Looks through cells for days that are told by the order of their numbers. */
export class DaysSeen {
  private dayFirst = false
  private monthFirst = false
  private readonly examples: string[] = []
  private any = false

  see(cell: string): void {
    const [, first, second] = BY_ORDER.exec(cell) ?? []
    if (first === undefined) return
    this.any = true
    if (Number(first) > MONTHS) this.dayFirst = true
    else if (Number(second) > MONTHS) this.monthFirst = true
    else if (first !== second && this.examples.length < EXAMPLES && !this.examples.includes(cell))
      this.examples.push(cell)
  }

  /** What the cells tell; null where none is told by its order. Cells that tell both tell neither. */
  told(): DaysWritten | null {
    if (!this.any) return null
    const order = this.dayFirst === this.monthFirst ? null : this.dayFirst ? 'day-first' : 'month-first'
    // Where every day is the same number as its month, either reading is right.
    return { order: order ?? (this.examples.length === 0 ? 'day-first' : null), examples: this.examples }
  }
}
