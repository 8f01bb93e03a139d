import { Box, Checkbox, FormControlLabel, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { fixedLengths, fixedLoopOf, tensionedPitches, type ChainOf } from '@pelrin/core'
import { number } from '../../messages/format.ts'
import { Cap } from '../../pieces/Cap.tsx'
import { LoopDrawing } from '../../pieces/LoopDrawing.tsx'
import { ink } from '../../theme/theme.ts'
import { LengthRow, type LengthProps } from './LengthRow.tsx'

/** Counts an axle that moves can take up the slack of, and where it stands with each. */
export function FixedLengths({
  facts,
  of,
  assumed,
  pitches,
  halfLink,
  onHalfLink,
  onPitches,
}: LengthProps & { of: ChainOf; halfLink: boolean; onHalfLink: (on: boolean) => void }) {
  const { t } = useTranslation()
  const oldPitches = of === 'timing' ? null : facts.oldPitches
  const loop = fixedLoopOf(facts.drive, of, halfLink)
  const found = loop && fixedLengths(loop, assumed)
  const standing = found?.find((one) => one.pitches === pitches)
  const drawn = standing && loop ? { ...loop, ...standing } : null
  return (
    <>
      {found === null && <Typography variant="body2">{t('parts.axleMissing')}</Typography>}
      {found?.length === 0 && loop && (
        <Typography variant="body2" sx={{ color: ink('brass'), fontWeight: 600 }}>
          {t('parts.tensioner', { count: tensionedPitches(loop) })}
        </Typography>
      )}
      {found !== null && (
        <FormControlLabel
          control={<Checkbox checked={halfLink} onChange={(_, on) => onHalfLink(on)} />}
          label={
            <>
              {t('parts.halfLink')} <Cap of="parts.halfLink" />
            </>
          }
        />
      )}
      {drawn && (
        <LoopDrawing
          frontTeeth={drawn.frontTeeth}
          rearTeeth={drawn.rearTeeth}
          chainstayMm={drawn.chainstayMm}
          slackMm={0}
        />
      )}
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {found?.map((one) => (
          <LengthRow
            key={one.pitches}
            name={t('parts.schoolOf.axle', { mm: number(one.chainstayMm, 1) })}
            count={one.pitches}
            chosen={one.pitches === pitches}
            onChoose={() => onPitches(one.pitches)}
            note={one.halfLink ? t('parts.withHalfLink') : ''}
          />
        ))}
        {oldPitches !== null && (
          <LengthRow
            name={t('parts.schoolOf.match-old')}
            count={oldPitches}
            chosen={oldPitches === pitches}
            onChoose={() => onPitches(oldPitches)}
            note=""
          />
        )}
      </Box>
    </>
  )
}
