import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { ChainVerdict } from '@pelrin/core'
import { percent } from '../messages/format.ts'
import { useInstruments } from '../api/queries.ts'

/**
 * What would settle a doubt, what the readings warn of, and how many spots are still wanted.
 *
 * @param present the readings still describe the chain: what they would say without another look is said only then
 */
export function SettleAndFlags({ verdict, present }: { verdict: ChainVerdict; present: boolean }) {
  const { t } = useTranslation()
  const instruments = useInstruments()
  const nameOf = (id: string | null): string => instruments.data?.find((one) => one.id === id)?.name ?? ''
  const lines = [
    ...verdict.settle.map((settle) => {
      switch (settle.kind) {
        case 'more-spots':
          return t('settle.more-spots', { count: settle.spots })
        case 'better-instrument':
          return t('settle.better-instrument', { instrument: nameOf(settle.instrumentId) })
        case 'instrument-that-can':
          return settle.instrumentId === null
            ? t('settle.instrument-that-can-none')
            : t('settle.instrument-that-can', { instrument: nameOf(settle.instrumentId) })
        case 'same-spot-with-both':
          return t('settle.same-spot-with-both')
      }
    }),
    ...(verdict.otherwise === null || !present
      ? []
      : [t('settle.otherwise', { word: t(`wordInside.${verdict.otherwise}`) })]),
    ...(verdict.word === 'keep-riding' && verdict.spotsWanted > 0 && verdict.spotsMeasured > 0
      ? [t('verdict.wanted', { count: verdict.spotsWanted })]
      : []),
    ...verdict.flags.map((flag) => t(`flag.${flag}`, { spread: percent(verdict.spread ?? 0) })),
  ]
  if (lines.length === 0) return null
  return (
    <Box component="ul" sx={{ m: 0, pl: 2.25, '& li::marker': { color: 'text.secondary' } }}>
      {lines.map((line) => (
        <Typography component="li" variant="body2" key={line}>
          {line}
        </Typography>
      ))}
    </Box>
  )
}
