import { Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import {
  countsOf,
  derailleurLengthExplained,
  fixedLengthExplained,
  fixedLoopOf,
  type Assumptions,
  type ChainOf,
  type Explanation,
  type LengthDrive,
  steppedPitches,
} from '@pelrin/core'
import type { PartsFacts } from '@pelrin/contract'
import { number } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Why } from '../../pieces/Why.tsx'
import { DerailleurLengths } from './DerailleurLengths.tsx'
import { FixedLengths } from './FixedLengths.tsx'
import type { LengthProps } from './LengthRow.tsx'

interface PaneProps extends LengthProps {
  /** The one that drives, or a tandem's second one. */
  of: ChainOf
  /** The count worked out, to set the chosen one beside. */
  worked: number | null
  /** Whether odd counts are offered, to be closed by a half link. */
  halfLink: boolean
  onHalfLink: (on: boolean) => void
}

/** How long the chain is to be, by every way of finding it, and which gears it then reaches. */
export function LengthPane({ facts, of, assumed, pitches, worked, halfLink, onHalfLink, onPitches }: PaneProps) {
  const { t } = useTranslation()
  const drive = facts.drive as LengthDrive
  const lengthWhy =
    of === 'drive' && drive.type === 'derailleur'
      ? derailleurLengthExplained(drive, assumed)
      : pitches === null
        ? []
        : fixedWhy(facts, { of, halfLink, pitches }, assumed)
  const step = halfLink && (of === 'timing' || drive.type !== 'derailleur') ? 1 : 2
  return (
    <Stack component="section" aria-label={t('parts.length')} sx={{ gap: 1 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1 }}>
          <Typography variant="h2" component="h2" sx={{ whiteSpace: 'nowrap' }}>
            {pitches === null ? t('parts.length') : t('parts.pitches', { count: pitches })}
          </Typography>
          {pitches !== null && <Why explanations={lengthWhy} label={t('parts.length')} />}
        </Stack>
        {pitches !== null && (
          <Stack direction="row" sx={{ gap: 0.5, alignItems: 'center' }}>
            {[-step, step].map((by) => (
              <KeyButton
                cap={by < 0 ? '←' : '→'}
                key={by}
                variant="outlined"
                aria-label={t(by < 0 ? 'parts.fewer' : 'parts.more', { count: step })}
                onClick={() => onPitches(steppedPitches(pitches, by))}
                sx={{ minWidth: 48, px: 1 }}
              >
                {by < 0 ? `−${step}` : `+${step}`}
              </KeyButton>
            ))}
          </Stack>
        )}
      </Stack>
      {pitches !== null && (
        <Typography variant="body2" color="textSecondary">
          {t('parts.counts', {
            pitches,
            without: countsOf(pitches).withoutJoint,
            links: number(countsOf(pitches).wholeLinks, 0),
          })}
        </Typography>
      )}
      {of === 'drive' && drive.type === 'derailleur' ? (
        <DerailleurLengths
          drive={drive}
          facts={facts}
          assumed={assumed}
          pitches={pitches}
          worked={worked}
          onPitches={onPitches}
        />
      ) : (
        <FixedLengths
          facts={facts}
          of={of}
          assumed={assumed}
          pitches={pitches}
          halfLink={halfLink}
          onHalfLink={onHalfLink}
          onPitches={onPitches}
        />
      )}
    </Stack>
  )
}

function fixedWhy(
  facts: PartsFacts,
  { of, halfLink, pitches }: { of: ChainOf; halfLink: boolean; pitches: number },
  assumed: Assumptions,
): Explanation[] {
  const loop = fixedLoopOf(facts.drive, of, halfLink)
  return loop ? fixedLengthExplained(loop, pitches, assumed) : []
}
