import { Box, Link, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link as RouterLink } from 'react-router'
import type { BikeSummary } from '@pelrin/contract'
import { ago, distance, number, today } from '../../messages/format.ts'
import { nextLook } from '../../pieces/nextLook.ts'
import { Plate } from '../../pieces/Plate.tsx'
import { lookToday } from '../../pieces/verdictLook.ts'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'
import { formats } from '../../messages/shopFormats.ts'

/** Which columns there is room for: on a phone whose bike and its verdict, on a tablet upright what to act on, beyond that all. */
export const RACK_COLUMNS = {
  xs: 'minmax(0, 1fr) 150px',
  sm: 'minmax(150px, 1.6fr) 176px 96px 92px minmax(112px, 0.8fr)',
  lg: 'minmax(200px, 1.6fr) minmax(96px, 0.7fr) 226px 96px 92px 84px 108px minmax(124px, 0.8fr)',
}
const ON_TABLETS = { xs: 'none', sm: 'block' }
const ON_SCREENS = { xs: 'none', lg: 'block' }
/** How a column is shown, where it is not shown everywhere. */
export const RACK_ROOM = {
  bike: {},
  drive: { display: ON_SCREENS },
  verdict: {},
  wear: { display: ON_TABLETS },
  chance: { display: ON_TABLETS },
  ran: { display: ON_SCREENS },
  measured: { display: ON_SCREENS },
  next: { display: ON_TABLETS },
} as const

/** One bike in the rack. */
export function RackRow({
  bike,
  index,
  top,
  height,
  chosen,
  onChoose,
  onOpen,
}: {
  bike: BikeSummary
  index: number
  top: number
  height: number
  chosen: boolean
  onChoose: () => void
  onOpen: () => void
}) {
  const { t } = useTranslation()
  const look = lookToday(bike, today())
  const next = nextLook(bike, today(), t)
  // What is to be measured is ranked by its chance by now; what was measured says how it was then.
  const now = bike.standing.word === 'measure-it'
  const chance = now ? bike.standing.chance : bike.probabilityOver
  return (
    <Box
      role="row"
      aria-rowindex={index + 2}
      aria-selected={chosen}
      onClick={onChoose}
      onDoubleClick={onOpen}
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        top,
        height,
        display: 'grid',
        gridTemplateColumns: RACK_COLUMNS,
        alignItems: 'center',
        gap: 1.5,
        px: 2.25,
        borderBottom: 1,
        borderColor: 'divider',
        boxShadow: chosen ? `inset 5px 0 ${ink('steel')}` : 'none',
        bgcolor: chosen ? 'background.paper' : 'transparent',
        cursor: 'default',
        '& > [role=cell]': { minWidth: 0 },
      }}
    >
      <Box role="cell">
        <Link
          component={RouterLink}
          to={`/bikes/${bike.id}`}
          underline="hover"
          color="inherit"
          sx={{ fontWeight: 600, display: 'block', py: 0.25 }}
          noWrap
        >
          {bike.customer.name}
          <Typography component="span" variant="body2" color="textSecondary" sx={{ ml: 1 }}>
            {bike.label}, {bike.tag}
          </Typography>
        </Link>
      </Box>
      <Typography role="cell" variant="body2" noWrap sx={RACK_ROOM.drive}>
        {t(`drive.${bike.drive.type}`, { speeds: bike.drive.speeds })}
      </Typography>
      <Stack role="cell" direction="row" sx={{ alignItems: 'center', gap: 1.25 }}>
        <Plate shape={look.plate} colour={look.colour} height={16} />
        <Typography variant="body2" sx={{ fontWeight: 600, color: look.colour, lineHeight: 1.15 }}>
          {t(look.overdue ? 'overdue' : `word.${bike.standing.word}`)}
          {bike.decision !== null && (
            <Typography
              component="span"
              variant="body2"
              sx={{ display: 'block', color: ink('brass'), lineHeight: 1.1 }}
            >
              {t('bike.decisionNow')}
            </Typography>
          )}
        </Typography>
        {bike.advice && bike.standing.word === 'change' && (
          <Plate shape="toothed" colour={ink('madder')} height={13} title={t(`advice.${bike.advice}`)} />
        )}
      </Stack>
      <Box role="cell" sx={RACK_ROOM.wear}>
        <WearRule size="small" marks={bike.marks} limit={bike.limit} colour={look.colour} />
      </Box>
      <Typography role="cell" variant="body2" sx={{ ...RACK_ROOM.chance, textAlign: 'right' }}>
        {chance === null
          ? '–'
          : t(now ? 'rack.chanceNow' : 'rack.chanceThen', {
              chance: chance > 0.995 ? '> 99 %' : chance < 0.005 ? '< 1 %' : `${number(chance * 100, 0)} %`,
            })}
      </Typography>
      <Typography role="cell" variant="body2" sx={{ ...RACK_ROOM.ran, textAlign: 'right' }} noWrap>
        {bike.chainKm === null ? '–' : distance(bike.chainKm, formats().distanceUnit)}
      </Typography>
      <Typography role="cell" variant="body2" noWrap sx={RACK_ROOM.measured}>
        {bike.measuredAt === null ? t('stand.never') : ago(bike.measuredAt)}
      </Typography>
      <Typography
        role="cell"
        variant="body2"
        sx={{
          ...RACK_ROOM.next,
          lineHeight: 1.15,
          color: next.overdue ? ink('brass') : 'inherit',
          fontWeight: next.overdue ? 600 : 400,
        }}
      >
        {next.text}
      </Typography>
    </Box>
  )
}
