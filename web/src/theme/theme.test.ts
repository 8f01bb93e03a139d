import { readdirSync, readFileSync } from 'node:fs'
import { getContrastRatio, type Palette } from '@mui/material/styles'
import { describe, expect, it } from 'vitest'
import { theme } from './theme.ts'

/** Both sets of colours, which the library's type of a theme does not tell of. */
const { colorSchemes } = theme as unknown as { colorSchemes: Record<'light' | 'dark', { palette: Palette }> }
const schemes = Object.entries(colorSchemes).map(([name, { palette }]) => [name, palette] as const)

/** Text below this is not read in the light of a workshop door. */
const READABLE = 4.5

describe.each(schemes)('what is read, %s', (_, { materials, primary }) => {
  it.each(['ink', 'faint', 'steel', 'brass', 'madder'] as const)('stands out in %s on paper and sheet', (colour) => {
    for (const ground of [materials.paper, materials.sheet])
      expect(getContrastRatio(materials[colour], ground)).toBeGreaterThanOrEqual(READABLE)
  })

  it('stands out on the blade of a rule, and on what is pressed', () => {
    expect(getContrastRatio(materials.ink, materials.blade)).toBeGreaterThanOrEqual(READABLE)
    expect(getContrastRatio(primary.contrastText, primary.main)).toBeGreaterThanOrEqual(READABLE)
  })

  it('has edges that are seen', () => {
    for (const ground of [materials.paper, materials.sheet, materials.blade])
      expect(getContrastRatio(materials.edge, ground)).toBeGreaterThanOrEqual(3)
  })
})

describe('what a thumb in a glove hits', () => {
  it('is 48 pixels high', () => {
    const root = theme.components?.MuiButton?.styleOverrides?.root as { minHeight: number }
    expect(root.minHeight).toBeGreaterThanOrEqual(48)
  })
})

describe('how large letters are', () => {
  const files = readdirSync('web/src', { recursive: true, encoding: 'utf8' }).filter(
    (file) => file.endsWith('.tsx') && !file.includes('.test.'),
  )
  it('is one of few sizes, by name, wherever it is set', () => {
    const own = files.flatMap((file) =>
      [...readFileSync(`web/src/${file}`, 'utf8').matchAll(/sx=\{\{[^}]*?fontSize: ([\d.]+)/g)].map(
        ([, size]) => `${file}: ${size}`,
      ),
    )
    expect(files.length).toBeGreaterThan(150)
    expect(own).toEqual([])
  })
  it('is a size there is', () => {
    const sizes = new Set(Object.keys(theme.typography.size))
    for (const file of files)
      for (const [, size] of readFileSync(`web/src/${file}`, 'utf8').matchAll(/'size\.(\w+)'/g))
        expect(sizes.has(size!), `${file}: ${size}`).toBe(true)
  })
})
