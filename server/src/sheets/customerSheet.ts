import { aheadOf, riderTopics, type Complaint, type WearItemId } from '@pelrin/core'
import type { BikeRecord, Job, Mend, OtherWear, SheetBlock } from '@pelrin/contract'
import type { Words } from './words.ts'

/** Everything a customer's sheet is written from. */
export interface ForCustomer {
  readonly record: BikeRecord
  /** The latest job, where one ended lately. */
  readonly job: Job | null
  readonly mends: readonly Mend[]
  readonly wear: OtherWear
  readonly motor: boolean
  /** What it is or was in for last; null where nobody wrote it. */
  readonly complaint: Complaint | null
  /** Other parts that were fitted lately. */
  readonly parts: readonly { readonly item: WearItemId; readonly name: string | null; readonly from: Date }[]
}

const text = (line: string, strong = false): SheetBlock => ({ kind: 'text', text: line, strong })
const heading = (line: string): SheetBlock => ({ kind: 'heading', text: line })

/** What a customer is handed: how the chain stands, what was done, what to expect, what they can do themselves. */
export function customerSheet(words: Words, facts: ForCustomer): SheetBlock[] {
  return [
    ...verdict(words, facts.record),
    ...expectation(words, facts.record),
    ...work(words, facts),
    ...otherWear(words, facts.wear),
    ...advised(words, facts),
    heading(words.t('sheet.why')),
    ...riderTopics(facts.complaint, facts.record.summary.standing.word).map((topic) =>
      text(words.t(`sheet.topic.${topic}`)),
    ),
    {
      kind: 'teeth',
      captions: { 'as-new': words.t('sheet.whyTeeth.as-new'), done: words.t('sheet.whyTeeth.done') },
    },
    heading(words.t('sheet.care')),
    { kind: 'list', items: words.list(`sheet.careOf.${facts.record.chain?.care ?? 'unknown'}`) },
    ...(facts.record.chain?.care === 'immersion-wax' ? [text(words.t('sheet.afterWax'))] : []),
    heading(words.t('sheet.cautions')),
    {
      kind: 'list',
      items: [
        ...(facts.motor ? ['motor'] : []),
        'chain',
        'fingers',
        ...(facts.wear.items.some(({ item }) => item.startsWith('rotor')) ? ['rotor'] : []),
        'makers',
      ].map((one) => words.t(`sheet.caution.${one}`)),
    },
  ]
}

function verdict(words: Words, { summary, verdict: stored, chain }: BikeRecord): SheetBlock[] {
  const worst = summary.marks.find((mark) => mark.worst) ?? summary.marks[0]
  const { standing, measuredAt, checkOn } = summary
  const oddsOf = (chance: number): number => Math.min(99, Math.max(1, Math.round(100 * chance)))
  const values = {
    limit: words.number(summary.limit, 2),
    odds: oddsOf(summary.probabilityOver ?? 0),
    day: measuredAt === null ? '' : words.day(measuredAt),
  }
  const ahead = standing.word === 'change' && stored ? aheadOf(stored.outcome) : null
  const since =
    standing.word !== 'measure-it'
      ? []
      : [
          text(
            standing.chance !== null
              ? words.t('sheet.verdictWhy.byNow', { odds: oddsOf(standing.chance) })
              : checkOn !== null
                ? words.t('sheet.verdictWhy.passed', { day: words.day(checkOn) })
                : words.t('sheet.nextNow'),
          ),
        ]
  const why =
    !worst || summary.probabilityOver === null
      ? words.t('sheet.verdictWhy.none', values)
      : worst.value === null
        ? words.t('sheet.verdictWhy.gauge', values)
        : words.t('sheet.verdictWhy.measured', {
            ...values,
            value: words.number(worst.value, 2),
            u: words.number(worst.u, 2),
          })
  return [
    { kind: 'verdict', word: standing.word, text: words.t(`sheet.word.${standing.word}`) },
    {
      kind: 'rule',
      word: standing.word,
      marks: summary.marks,
      limit: summary.limit,
      watch: stored?.outcome.watch ?? null,
      caption: words.t('sheet.rule'),
    },
    text(why),
    ...(ahead
      ? [text(words.t('sheet.verdictWhy.ahead', { km: words.distance(ahead.km), odds: oddsOf(ahead.chance) }))]
      : []),
    ...since,
    ...(chain
      ? [
          text(
            words.listed([
              chain.name,
              ...(chain.pitches === null ? [] : [words.t('sheet.chainPitches', { count: chain.pitches })]),
              words.t(`care.${chain.care}`),
              ...(summary.chainKm === null ? [] : [words.t('sheet.chainKm', { km: words.distance(summary.chainKm) })]),
            ]),
          ),
        ]
      : []),
  ]
}

function expectation(words: Words, { forecast, verdictInput, summary }: BikeRecord): SheetBlock[] {
  const blocks: SheetBlock[] = [heading(words.t('sheet.forecast'))]
  if (forecast?.withheld !== null) blocks.push(text(words.t('sheet.forecastNone')))
  else if (forecast.kmLeft[1] <= 0)
    blocks.push(
      text(words.t(summary.standing.word === 'change' ? 'sheet.forecastOver' : 'sheet.forecastOverUnmeasured')),
    )
  else {
    const [low, middle, high] = forecast.kmLeft.map((km) => words.distance(Math.max(0, km)))
    const days = forecast.daysLeft[1]
    const at = verdictInput?.life?.at
    const values = { low: low ?? '', middle: middle ?? '', high: high ?? '' }
    blocks.push(
      text(
        days === null || at === undefined
          ? words.t('sheet.forecastLeftOnly', values)
          : words.t('sheet.forecastLeft', { ...values, day: words.day(new Date(at + days * 86_400_000)) }),
      ),
    )
  }
  if (summary.standing.word === 'measure-it') blocks.push(text(words.t('sheet.nextNow'), true))
  else if (summary.checkOn !== null) blocks.push(text(words.t('sheet.next', { day: words.day(summary.checkOn) }), true))
  return blocks
}

function work(words: Words, { job, mends, parts }: ForCustomer): SheetBlock[] {
  const [mend] = mends
  const lines: SheetBlock[] = []
  if (mend?.option) lines.push(text(words.t('sheet.mended', { day: words.day(mend.at), left: mend.option.left })))
  if (job?.closedAt) {
    const day = words.day(job.closedAt)
    const { written } = job
    const planned = job.plan.chain.pitches
    if (written?.newChainId != null)
      lines.push(
        text(
          words.t('sheet.workOn', {
            day,
            chain: job.parts.chain,
            // As it was counted, which a plan did not know where the length was found on the bike.
            count: written.pitches ?? planned,
            joint: job.parts.joint === null ? '' : words.t('sheet.workJoint', { joint: job.parts.joint }),
          }),
        ),
      )
    else lines.push(text(words.t(job.state === 'stopped' ? 'sheet.workStopped' : 'sheet.workBack', { day })))
    const bill = written?.bill
    if (bill)
      lines.push({
        kind: 'bill',
        rows: [
          {
            name: words.t('sheet.bill.labour', { count: Math.round(bill.minutes) }),
            value: words.money(bill.labour),
          },
          ...bill.parts.map(({ name, quantity, price }) => ({
            name: words.t('sheet.bill.part', { quantity, name }),
            value: words.money(price === null ? null : price * quantity),
          })),
          { name: words.t('sheet.bill.total'), value: words.money(bill.total) },
        ],
      })
  }
  for (const { item, name, from } of parts)
    lines.push(
      text(
        words.t('sheet.workPart', {
          day: words.day(from),
          item: words.t(`sheet.item.${item}`).toLowerCase(),
          name: name === null ? '' : words.t('sheet.workPartName', { name }),
        }),
      ),
    )
  return lines.length === 0 ? [] : [heading(words.t('sheet.work')), ...lines]
}

function otherWear(words: Words, { items }: OtherWear): SheetBlock[] {
  const seen = items.filter(({ result }) => result !== null)
  if (seen.length === 0) return []
  const good = seen.filter(({ result }) => result === 'good')
  return [
    heading(words.t('sheet.other')),
    {
      kind: 'list',
      items: [
        ...seen
          .filter(({ result }) => result !== 'good')
          .map(({ item, result, rotor, minimumMm, dueOn }) =>
            words.t('sheet.otherItem', {
              item: words.t(`sheet.item.${item}`),
              result: words.t(`sheet.result.${result ?? 'good'}`),
              due: [
                rotor && minimumMm !== null
                  ? words.t('sheet.otherRotor', {
                      mm: words.number(rotor.now.mm, 2),
                      minimum: words.number(minimumMm, 2),
                    })
                  : '',
                dueOn !== null && result !== 'change' ? words.t('sheet.otherDue', { day: words.day(dueOn) }) : '',
              ].join(''),
            }),
          ),
        ...(good.length > 0
          ? [words.t('sheet.otherGood', { items: good.map(({ item }) => words.t(`sheet.item.${item}`)).join(', ') })]
          : []),
      ],
    },
  ]
}

function advised(words: Words, { record, wear, mends }: ForCustomer): SheetBlock[] {
  const decision = record.decisions.find(({ stands }) => stands)
  const items = [
    ...(record.summary.standing.word === 'change' ? [words.t('sheet.advisedChange')] : []),
    ...(record.summary.advice === null || record.summary.standing.word !== 'change'
      ? []
      : [words.t('sheet.advisedSprockets')]),
    ...wear.items
      .filter(({ result }) => result === 'change')
      .map(({ item }) => words.t('sheet.advisedItem', { item: words.t(`sheet.item.${item}`) })),
    ...(mends[0]?.advised ? [mends[0].advised] : []),
    ...(decision ? [words.t('sheet.declined', { day: words.day(decision.occurredAt), reason: decision.reason })] : []),
  ]
  return [
    heading(words.t('sheet.advised')),
    { kind: 'list', items: items.length === 0 ? [words.t('sheet.nothing')] : items },
  ]
}
