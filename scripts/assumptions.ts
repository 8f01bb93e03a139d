import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ASSUMPTIONS } from '@pelrin/core'

const FILE = join(import.meta.dirname, '../docs/assumptions.md')

/** What docs/assumptions.md has to say: every value that is assumed, as it is declared. */
export function assumptionsPage(): string {
  const rows = ASSUMPTIONS.map(
    ({ key, says, shipped, unit, lowest, highest, actsOn }) =>
      `| \`${key}\` | ${says} | ${Number(shipped.toPrecision(4))} | ${unit} | ${lowest} to ${highest} | ${actsOn} |`,
  )
  return `# What is assumed

Written by \`npm run assumptions\` from \`core/src/declared.ts\`, where each value is declared once. A shop sets its own under House
rules, each with a reason and from a day on; every verdict names the version it was given by. A test moves each and sees that
what it acts on moves with it.

| value | means | shipped | unit | from, to | acts on |
|---|---|---|---|---|---|
${rows.join('\n')}
`
}

/** The page as it lies there. */
export const assumptionsPageThere = (): string => readFileSync(FILE, 'utf8')

if (process.argv[1] === import.meta.filename) writeFileSync(FILE, assumptionsPage())
