import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { keepOff, type Gear, type GearVerdict } from '@pelrin/core'
import { number } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'

/** How each gear is drawn: its fill and a mark of its own, so that it is told without colour. */
const LOOK: Readonly<Record<GearVerdict, { fill: string; text: string; mark: string }>> = {
  fine: { fill: 'transparent', text: ink('ink'), mark: '' },
  tight: { fill: ink('blade'), text: ink('ink'), mark: '•' },
  forbidden: { fill: ink('madder'), text: ink('paper'), mark: '×' },
  loose: { fill: 'transparent', text: ink('brass'), mark: '∪' },
}

/** Gears that cannot be ridden with one count and can with another, and the other way round. */
function changed(gears: readonly Gear[], before: readonly Gear[]): { lost: Gear[]; won: Gear[] } {
  const was = new Map(before.map((gear) => [`${gear.front} ${gear.rear}`, OFF.includes(gear.verdict)]))
  const wasOff = (gear: Gear): boolean => was.get(`${gear.front} ${gear.rear}`) === true
  return {
    lost: gears.filter((gear) => OFF.includes(gear.verdict) && !wasOff(gear)),
    won: gears.filter((gear) => !OFF.includes(gear.verdict) && wasOff(gear)),
  }
}
const OFF: readonly GearVerdict[] = ['forbidden', 'loose']

/**
 * Which gears a chain reaches: rings down, sprockets across, what is left in each, pitches. Gears that were otherwise before
 * are ringed.
 */
export function ReachMap({ gears, before = null }: { gears: readonly Gear[]; before?: readonly Gear[] | null }) {
  const { t } = useTranslation()
  const fronts = [...new Set(gears.map(({ front }) => front))].sort((a, b) => b - a)
  const rears = [...new Set(gears.map(({ rear }) => rear))].sort((a, b) => a - b)
  const { lost, won } = changed(gears, before ?? gears)
  const cell = {
    px: 0,
    py: 0.5,
    textAlign: 'center',
    fontSize: 'size.note',
    border: `1px solid ${ink('edge')}`,
    minWidth: 0,
  } as const
  return (
    <Box
      component="table"
      aria-label={t('parts.reach')}
      sx={{ borderCollapse: 'collapse', width: '100%', tableLayout: 'fixed', fontVariantNumeric: 'tabular-nums' }}
    >
      <thead>
        <tr>
          <Box component="td" sx={{ width: 34 }} />
          {rears.map((rear) => (
            <Box
              component="th"
              scope="col"
              key={rear}
              sx={{ fontSize: 'size.note', fontWeight: 600, color: ink('faint') }}
            >
              {rear}
            </Box>
          ))}
        </tr>
      </thead>
      <tbody>
        {fronts.map((front) => (
          <tr key={front}>
            <Box
              component="th"
              scope="row"
              sx={{ fontSize: 'size.note', fontWeight: 600, color: ink('faint'), textAlign: 'left' }}
            >
              {front}
            </Box>
            {rears.map((rear) => {
              const gear = gears.find((one) => one.front === front && one.rear === rear)!
              const { fill, text, mark } = LOOK[gear.verdict]
              return (
                <Box
                  component="td"
                  key={rear}
                  title={t('parts.gearAt', {
                    front,
                    rear,
                    verdict: t(`parts.gear.${gear.verdict}`),
                    slack: number(gear.slack, 1),
                  })}
                  data-changed={lost.includes(gear) || won.includes(gear)}
                  sx={{
                    ...cell,
                    position: 'relative',
                    bgcolor: fill,
                    color: text,
                    fontWeight: gear.verdict === 'fine' ? 400 : 700,
                    ...(lost.includes(gear) || won.includes(gear)
                      ? { outline: `2.5px dashed ${ink('brass')}`, outlineOffset: -4 }
                      : {}),
                  }}
                >
                  {mark}
                  {number(gear.slack, 0)}
                  <Box
                    component="span" // Lengths as text: a number of 1 is all there is.
                    sx={{
                      position: 'absolute',
                      width: '1px',
                      height: '1px',
                      overflow: 'hidden',
                      clip: 'rect(0 0 0 0)',
                    }}
                  >
                    {` ${t(`parts.gear.${gear.verdict}`)}`}
                  </Box>
                </Box>
              )
            })}
          </tr>
        ))}
      </tbody>
    </Box>
  )
}

/** The same in words for the rider: what to keep off, ring by ring. */
export function ReachWords({ gears, judged }: { gears: readonly Gear[]; judged: boolean }) {
  const { t } = useTranslation()
  const off = keepOff(gears)
  return (
    <Box aria-live="polite">
      {off.length === 0 && <Typography variant="body2">{t('parts.allGears')}</Typography>}
      {off.map(({ verdict, front, ring, which, rears }) => (
        <Typography
          key={`${verdict} ${front}`}
          variant="body2"
          sx={{ fontWeight: 600, color: verdict === 'forbidden' ? ink('madder') : ink('brass') }}
        >
          {t(`parts.keepOff.${verdict}`, {
            which: t(`parts.which.${which}`, { count: rears.length, teeth: rears.join(', ') }),
            ring: t(`parts.ring.${ring}`),
          })}
        </Typography>
      ))}
      {!judged && (
        <Typography variant="body2" color="textSecondary">
          {t('parts.notJudged')}
        </Typography>
      )}
    </Box>
  )
}

/** What another count would change: the gears lost against it, and those won. */
export function ReachChange({
  gears,
  before,
  pitches,
}: {
  gears: readonly Gear[]
  before: readonly Gear[]
  /** The count it is set against. */
  pitches: number
}) {
  const { t } = useTranslation()
  const { lost, won } = changed(gears, before)
  const named = (some: readonly Gear[]): string => some.map(({ front, rear }) => `${front} × ${rear}`).join(', ')
  return (
    <Typography variant="body2" color="textSecondary">
      {t('parts.against', { count: pitches })}{' '}
      {lost.length + won.length === 0
        ? t('parts.gearsSame')
        : [
            ...(lost.length > 0 ? [t('parts.gearsLost', { gears: named(lost) })] : []),
            ...(won.length > 0 ? [t('parts.gearsWon', { gears: named(won) })] : []),
          ].join(' ')}
    </Typography>
  )
}
