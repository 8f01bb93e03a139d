import { parseArgs } from 'node:util'
import { say, sentenceOf } from '../plain.ts'
import { brokenConnections, kills } from './connections.ts'
import type { Found } from './found.ts'
import { everyAddress, hostileBodies, hostileFiles } from './hostile.ts'
import { Target } from './target.ts'

/**
 * `npm run attack [-- --requests 3000 --files 10 --cuts 120 --kills 12]`: goes at a copy of Pelrin on this machine, and nowhere else, and says what came
 * of it. Ends by itself; not with 0 where anything was found.
 */
const { values } = parseArgs({
  options: {
    requests: { type: 'string', default: '3000' },
    files: { type: 'string', default: '10' },
    cuts: { type: 'string', default: '120' },
    kills: { type: 'string', default: '12' },
    port: { type: 'string', default: '7371' },
  },
})

async function attack(): Promise<number> {
  const target = await Target.start(Number(values.port))
  const found: Found[] = []
  try {
    const before = target.memory()
    found.push(
      await everyAddress(target),
      await hostileBodies(target, Number(values.requests)),
      await hostileFiles(target, Number(values.files)),
      await brokenConnections(target, Number(values.cuts)),
    )
    say(`The server held ${before} MB before, ${target.memory()} MB after.`)
    found.push(await kills(target, Number(values.kills)))
  } finally {
    await target.stop()
  }
  for (const { what, done, faults, also } of found) {
    say(`${faults.length === 0 ? 'held' : 'FELL'}  ${what}: ${done}${also === undefined ? '' : `; ${also}`}`)
    for (const fault of faults.slice(0, 20)) say(`      ${fault}`)
  }
  return found.reduce((sum, { faults }) => sum + faults.length, 0)
}

attack().then(
  (faults) => process.exit(faults === 0 ? 0 : 1),
  (error: unknown) => {
    process.stderr.write(`${sentenceOf(error)}\n`)
    process.exit(1)
  },
)
