import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { textOf } from '../testing/textOf.ts'
import { TableCounts, TableRows, type SaidRow } from './TableRows.tsx'

beforeAll(async () => {
  await import('../messages/index.ts')
})

const row = (number: number, standing: SaidRow['standing']): SaidRow => ({
  row: number,
  name: `Bike ${number}`,
  said: `what row ${number} does`,
  standing,
})
const shown = (groups: { rows: SaidRow[]; more: number }[], skip: number[] = []): string =>
  renderToStaticMarkup(<TableRows label="A table" groups={groups} skip={new Set(skip)} onSkip={() => undefined} />)

describe('rows of a table that comes in', () => {
  it('can be left out where they would be taken, and only there', () => {
    const markup = shown([
      { rows: [row(3, 'wrong')], more: 0 },
      { rows: [row(2, 'stays')], more: 0 },
      { rows: [row(1, 'taken'), row(4, 'taken')], more: 0 },
    ])
    expect([...markup.matchAll(/aria-label="take row (\d)"/g)].map(([, number]) => number)).toEqual(['1', '4'])
    expect(markup.match(/checked=""/g)).toHaveLength(2)
  })
  it('that are left out are shown as such', () => {
    expect(shown([{ rows: [row(1, 'taken'), row(2, 'taken')], more: 0 }], [2]).match(/checked=""/g)).toHaveLength(1)
  })
  it('stand with their name and what they would do; how many more there are is said', () => {
    const markup = shown([{ rows: [row(7, 'wrong')], more: 41 }])
    expect(markup).toMatch(/row 7.*Bike 7.*what row 7 does/s)
    expect(markup).toContain('and 41 more like these')
  })
  it('are counted by outcome, told to who cannot see', () => {
    const markup = renderToStaticMarkup(
      <TableCounts
        counts={[
          { n: 3, label: '3 new' },
          { n: 1, label: '1 cannot be taken', wrong: true },
        ]}
      />,
    )
    expect(markup).toContain('role="status"')
    expect(textOf(markup)).toMatch(/3 new\s+1 cannot be taken/)
  })
})
