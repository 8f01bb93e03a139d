import { Box, Button, Stack, Typography } from '@mui/material'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { PotNow } from '@pelrin/contract'
import { clock } from '../../messages/format.ts'
import { Cap } from '../../pieces/Cap.tsx'
import { ring } from '../../pieces/ring.ts'
import { ink } from '../../theme/theme.ts'
import { actionKey, isMoving, type PotAction } from './potActions.ts'
import { shortName } from './shortName.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** So many are shown; the rest stands in the timeline. */
const SHOWN = 4

const clockOf = (ms: number): string => {
  const seconds = Math.floor(Math.abs(ms) / 1000)
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60]
  const two = (value: number): string => String(value).padStart(2, '0')
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`
}

/** What is done to chains at an action, in words. */
export function usePotWords(pots: readonly PotNow[]) {
  const { t } = useTranslation()
  return ({ what, potId, chains }: PotAction): string =>
    t(`pot.do.${what}`, {
      pot: pots.find(({ id }) => id === (potId ?? chains[0]?.potId))?.name ?? '',
      recipe: t(`pot.recipe.${chains[0]?.recipe ?? 'soak-and-hang'}`),
    })
}

/** What is to be done next, each with its clock; the first is the place's Enter. A clock that runs out rings. */
export function NextActions({
  actions,
  pots,
  now,
  moved,
  onDo,
  onDry,
}: {
  actions: readonly PotAction[]
  pots: readonly PotNow[]
  now: number
  /** Chains that were sent on, as they stood then. */
  moved: readonly string[]
  onDo: (action: PotAction) => void
  /** Its chains are dry, whatever the clock says. */
  onDry: (action: PotAction) => void
}) {
  const { t } = useTranslation()
  const words = usePotWords(pots)
  const rung = useRef(new Set<string>())
  useEffect(() => {
    for (const { what, at, chains } of actions) {
      // What waits on a clock rings as it runs out: not what was late when the place opened.
      const key = `${what} ${chains.map(({ id, version }) => `${id}.${version}`).join(' ')}`
      if (at > now) rung.current.delete(key)
      else if (!rung.current.has(key)) {
        rung.current.add(key)
        if (now - at < 5_000 && (what === 'draw' || what === 'flex' || what === 'unstrip')) ring()
      }
    }
  }, [actions, now])
  if (actions.length === 0) return <Typography color="textSecondary">{t('pot.nothing')}</Typography>
  return (
    <Box component="ol" aria-label={t('pot.next')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {actions.slice(0, SHOWN).map((action, i) => {
        const left = action.at - now
        const due = left <= 0
        return (
          <Box component="li" key={actionKey(action)} sx={{ borderTop: 1, borderColor: 'divider', py: 1 }}>
            <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
              <Box sx={{ flex: 1, minWidth: 0 }}>
                <Typography sx={{ fontSize: i === 0 ? 'size.say' : 'size.text', fontWeight: 700, lineHeight: 1.2 }}>
                  {words(action)}
                </Typography>
                <Typography variant="body2">{action.chains.map(shortName).join('; ')}</Typography>
                <Typography
                  role={i === 0 ? 'timer' : undefined}
                  variant="body2"
                  sx={{ fontWeight: 700, color: due ? ink('madder') : 'text.secondary' }}
                >
                  {due
                    ? left > -60_000
                      ? t('pot.due')
                      : t('pot.overdue', { time: clockOf(left) })
                    : `${t('pot.in', { time: clockOf(left) })}, ${clock(new Date(action.at).toISOString())}`}
                </Typography>
              </Box>
              <Allowed right="record">
                {!due && action.what === 'load' && action.chains.some(({ needs }) => needs === 'dry') && (
                  <Button onClick={() => onDry(action)} sx={{ minHeight: 56, px: 1 }}>
                    {t('pot.isDry')}
                  </Button>
                )}
                <Button
                  variant={i === 0 ? 'contained' : 'outlined'}
                  disabled={isMoving(action, moved)}
                  onClick={() => onDo(action)}
                  aria-label={`${t('pot.done')}: ${words(action)}`}
                  sx={{ minHeight: 56, gap: 1 }}
                >
                  {t('pot.done')} {i === 0 && <Cap of="pot.next" />}
                </Button>
              </Allowed>
            </Stack>
          </Box>
        )
      })}
    </Box>
  )
}
