import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { Message } from '@pelrin/contract'
import { clock, day } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

const BAD: readonly Message['state'][] = ['failed', 'refused']

/** One message, what became of it, and how to call it off while it waits. */
export function MessageRow({ message, busy, onCallOff }: { message: Message; busy: boolean; onCallOff: () => void }) {
  const { t } = useTranslation()
  const { customer, visitDay, text, state, tries, sendAfter, sentAt, language } = message
  const time = state === 'waiting' ? clock(sendAfter) : sentAt === null ? '' : clock(sentAt)
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'minmax(0, 1fr) 190px' },
        columnGap: 2,
        borderTop: 1,
        borderColor: 'divider',
        py: 1,
      }}
    >
      <span>
        <Typography component="span" sx={{ display: 'block', fontWeight: 700 }}>
          {customer.name}, {day(visitDay)}
        </Typography>
        <Typography component="span" variant="body2" color="textSecondary" lang={language}>
          {text}
        </Typography>
      </span>
      <Stack sx={{ alignItems: { sm: 'flex-end' } }}>
        <Typography sx={{ fontWeight: 700, color: BAD.includes(state) ? ink('madder') : 'text.primary' }}>
          {t(`reminding.state.${state}`, { time })}
        </Typography>
        {tries > 1 && (
          <Typography variant="body2" color="textSecondary">
            {t('reminding.tries', { count: tries })}
          </Typography>
        )}
        {state === 'waiting' && (
          <Button
            color="error"
            disabled={busy}
            onClick={onCallOff}
            aria-label={`${t('reminding.callOff')}: ${customer.name}`}
            sx={{ minHeight: 44, px: 1 }}
          >
            {t('reminding.callOff')}
          </Button>
        )}
      </Stack>
    </Box>
  )
}
