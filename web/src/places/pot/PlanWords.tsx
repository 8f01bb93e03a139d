import { Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { PotBoard } from '@pelrin/contract'
import { clock } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import type { TimedPlan } from '../../workers/usePotPlan.ts'
import { MINUTE } from './pinned.ts'
import { shortName } from './shortName.ts'

/** Whether every promise is kept, which is not and by how much, and what planning gained. */
export function PlanWords({ plan: { plan, firstCome, from }, board }: { plan: TimedPlan; board: PotBoard }) {
  const { t } = useTranslation()
  const at = (minute: number): string => clock(new Date(from + minute * MINUTE).toISOString())
  const late = plan.chains.filter((way) => way.late > 0)
  const nameOf = (id: string): string => {
    const chain = board.chains.find((one) => one.id === id)
    return chain ? shortName(chain) : ''
  }
  return (
    <>
      <Typography
        component="p"
        role="status"
        sx={{
          fontSize: 'size.head',
          fontWeight: 700,
          lineHeight: 1.2,
          color: late.length > 0 ? ink('madder') : ink('steel'),
        }}
      >
        {late.length === 0
          ? t('pot.ready', { time: at(plan.finish) })
          : t('pot.readyLate', {
              count: late.length,
              which: late.map(({ id, late: count }) => t('pot.lateOf', { name: nameOf(id), count })).join(', '),
            })}
      </Typography>
      <Typography color="textSecondary">
        {firstCome.late > plan.late
          ? t('pot.gainLate', { count: firstCome.late - plan.late })
          : firstCome.finish > plan.finish
            ? t('pot.gainSooner', { count: firstCome.finish - plan.finish })
            : t('pot.gainNone')}
        {board.pots.some(({ onSince }) => onSince === null) && ` ${t('pot.coldNote')}`}
      </Typography>
    </>
  )
}
