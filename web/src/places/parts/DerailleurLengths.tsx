import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import {
  bikeReach,
  capacityNeeded,
  derailleurCautions,
  derailleurLength,
  lengthSchools,
  type Gear,
  type LengthDrive,
  slackOverLargestMm,
} from '@pelrin/core'
import { number } from '../../messages/format.ts'
import { LoopDrawing } from '../../pieces/LoopDrawing.tsx'
import { ReachChange, ReachMap, ReachWords } from '../../pieces/ReachMap.tsx'
import { ink } from '../../theme/theme.ts'
import { LengthRow, type LengthProps } from './LengthRow.tsx'

/** The count by each way of finding it, the loop drawn, and which gears it reaches. */
export function DerailleurLengths({
  drive,
  facts,
  assumed,
  pitches,
  worked,
  onPitches,
}: LengthProps & { drive: LengthDrive; worked: number | null }) {
  const { t } = useTranslation()
  const known = derailleurLength(drive, assumed)
  const reachAt = (count: number | null): Gear[] | null => (count === null ? null : bikeReach(drive, count, assumed))
  const gears = reachAt(pitches)
  // What it was before links went, or as it ought to be: the old count where the chain is being mended, else the one worked out.
  const besides = facts.oldPitches ?? worked
  const before = besides === pitches ? null : reachAt(besides)
  return (
    <>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {lengthSchools(drive, facts.oldPitches, assumed, facts.oldLook).map(
          ({ school, pitches: count, missing, apart, bound }) => (
            <LengthRow
              key={school}
              name={t(`parts.schoolOf.${school}`)}
              count={count}
              chosen={count === pitches}
              onChoose={() => onPitches(count)}
              note={
                count === null
                  ? t('parts.schoolMissing', { facts: missing.map((fact) => t(`parts.lengthFact.${fact}`)).join(', ') })
                  : bound !== null
                    ? t(`parts.bound.${bound}`)
                    : school === 'largest-and-added' && known
                      ? [
                          t('parts.loop', { loop: number(known.loop, 1) }),
                          t(`parts.added.${known.added.from}`, { count: known.added.pitches }),
                          ...(known.pulleyPitches > 0
                            ? [t('parts.pulleyPitches', { count: known.pulleyPitches })]
                            : []),
                        ].join(', ')
                      : apart === null
                        ? ''
                        : apart === 0
                          ? t('parts.apart.same')
                          : t(apart > 0 ? 'parts.apart.more' : 'parts.apart.fewer', { count: Math.abs(apart) })
              }
            />
          ),
        )}
      </Box>
      {derailleurCautions(drive).map((caution) => (
        <Typography key={caution} variant="body2" sx={{ color: ink('brass'), fontWeight: 600 }}>
          {t(`parts.derailleur.${caution}`, {
            capacity: drive.capacityTeeth ?? 0,
            needed: capacityNeeded(drive),
            largest: drive.largestSprocketTeeth ?? 0,
          })}
        </Typography>
      ))}
      {known && gears && pitches !== null && (
        <LoopDrawing
          frontTeeth={known.largestRing}
          rearTeeth={known.largestSprocket}
          chainstayMm={known.chainstayMm}
          slackMm={slackOverLargestMm(known, pitches)}
        />
      )}
      {gears && (
        <Box>
          <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 0.5 }}>
            {t('parts.reach')}
          </Typography>
          <ReachMap gears={gears} before={before} />
          <ReachWords gears={gears} judged={drive.capacityTeeth !== null} />
          {before && besides !== null && <ReachChange gears={gears} before={before} pitches={besides} />}
        </Box>
      )}
    </>
  )
}
