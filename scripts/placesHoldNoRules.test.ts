import { readdirSync, readFileSync } from 'node:fs'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'

const ARITHMETIC: ReadonlySet<ts.SyntaxKind> = new Set([
  ts.SyntaxKind.PlusToken,
  ts.SyntaxKind.MinusToken,
  ts.SyntaxKind.AsteriskToken,
  ts.SyntaxKind.SlashToken,
])
/** What is measured, counted or paid for, by the words code has for it. */
const OF_THE_TRADE =
  /(?:Km|Mm|Kg|[pP]itches|[pP]rice|[sS]tock|kept|[qQ]uantity|elongation|[lL]imit|[tT]eeth|[cC]elsius|[mM]inutes|closings|[cC]ost|onOrder|reorderPoint|worn|[sS]hare|\bs|\bu|\bbias)$/

/** Arithmetic on what is measured, counted or paid for, in a piece of code. */
export function rulesIn(file: string, code: string): string[] {
  const source = ts.createSourceFile(file, code, ts.ScriptTarget.Latest, true)
  const found: string[] = []
  const nameOf = (node: ts.Node): string =>
    ts.isParenthesizedExpression(node) || ts.isNonNullExpression(node)
      ? nameOf(node.expression)
      : ts.isPropertyAccessExpression(node)
        ? node.name.text
        : ts.isIdentifier(node)
          ? node.text
          : ''
  const visit = (node: ts.Node): void => {
    if (
      ts.isBinaryExpression(node) &&
      ARITHMETIC.has(node.operatorToken.kind) &&
      [node.left, node.right].some((side) => OF_THE_TRADE.test(nameOf(side)))
    ) {
      const { line } = source.getLineAndCharacterOfPosition(node.getStart())
      found.push(`${file}:${line + 1} ${node.getText()}`)
    }
    ts.forEachChild(node, visit)
  }
  visit(source)
  return found
}

describe('a place', () => {
  it('holds no rule of the trade: what is reckoned with lengths, counts and money is core’s', () => {
    // Drawings reckon where lines go.
    const files = readdirSync('web/src/places', { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.tsx?$/.test(file) && !/\.test\.|drawings\//.test(file))
      .map((file) => `web/src/places/${file}`)
    expect(files.length).toBeGreaterThan(150)
    expect(files.flatMap((file) => rulesIn(file, readFileSync(file, 'utf8')))).toEqual([])
  })
  it.each(['part.stock - part.kept', '(chain.pitches) * 2', 'order.price! * 3', '1 + lengthMm'])(
    'would be told of %s',
    (rule) => {
      expect(rulesIn('x.ts', rule)).toHaveLength(1)
    },
  )
  it('may count rows and moments', () => {
    expect(rulesIn('x.ts', 'chosen + by; now - from; 2 * width')).toEqual([])
  })
})
