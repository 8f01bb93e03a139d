import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { bikeReach, type Assumptions, type LengthDrive, type MendOption } from '@pelrin/core'
import type { BikeMends } from '@pelrin/contract'
import { number } from '../../messages/format.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { ink } from '../../theme/theme.ts'

export const wayKey = ({ joint, way, inserted }: MendOption): string => `${joint} ${way} ${inserted.join()}`

/** The ways there are, the one that loses least first, each with what it costs in pitches and gears. */
export function WayList({
  options,
  chosen,
  drive,
  assumed,
  rePress,
  minutes,
  onChoose,
}: {
  options: readonly MendOption[]
  chosen: MendOption | undefined
  drive: LengthDrive
  assumed: Assumptions
  rePress: BikeMends['rePress']
  /** What each takes; null where too little is known of the bike. */
  minutes: (option: MendOption) => number | null
  onChoose: (option: MendOption) => void
}) {
  const { t } = useTranslation()
  return (
    <Box role="radiogroup" aria-label={t('mends.ways')}>
      {options.slice(0, 6).map((option, i) => {
        const off =
          bikeReach(drive, option.left, assumed)?.filter(({ verdict }) => verdict === 'forbidden').length ?? null
        const on = chosen !== undefined && wayKey(option) === wayKey(chosen)
        const takes = minutes(option)
        const put = option.inserted.reduce((sum, one) => sum + one, 0)
        return (
          <Box
            component="button"
            type="button"
            role="radio"
            aria-checked={on}
            key={wayKey(option)}
            onClick={() => onChoose(option)}
            sx={{
              font: 'inherit',
              color: 'inherit',
              textAlign: 'left',
              display: 'grid',
              gridTemplateColumns: '34px minmax(0, 1fr)',
              gap: 1,
              width: '100%',
              minHeight: 56,
              alignItems: 'center',
              border: 0,
              borderTop: 1,
              borderColor: 'divider',
              px: 1,
              py: 0.5,
              cursor: 'pointer',
              bgcolor: on ? 'background.paper' : 'transparent',
              boxShadow: on ? `inset 5px 0 ${ink('steel')}` : 'none',
            }}
          >
            <span>
              <KeyCap>{String(i + 1)}</KeyCap>
            </span>
            <span>
              <Typography component="span" sx={{ fontWeight: 700 }}>
                {option.lost === 0
                  ? t('mends.keeps', { left: option.left })
                  : t('mends.loses', { lost: option.lost, left: option.left })}
                , {t(`mends.way.${option.joint}`, { count: option.joints })}
                {option.way === 'one-run' && `, ${t('mends.oneRun')}`}
                {put > 0 && ` ${t('mends.inserted', { count: put })}`}
              </Typography>
              <Typography component="span" variant="body2" sx={{ display: 'block' }}>
                {off === null
                  ? option.lost > 0 && drive.type !== 'derailleur'
                    ? t('mends.fixedShort', { lost: option.lost })
                    : ''
                  : off === 0
                    ? t('mends.allGears')
                    : t('mends.lostGears', { count: off })}
                {takes !== null && `, ${t('mends.takes', { minutes: number(takes, 0) })}`}
                {option.joint === 're-press' && `. ${t(`mends.rePress.${rePress}`)}`}
              </Typography>
            </span>
          </Box>
        )
      })}
    </Box>
  )
}
