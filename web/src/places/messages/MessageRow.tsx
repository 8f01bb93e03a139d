import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { Message } from '@pelrin/contract'
import { clock, day } from '../../messages/format.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ink } from '../../theme/theme.ts'

const BAD: readonly Message['state'][] = ['failed', 'refused', 'unsure']

/** What can be done with a message. */
type Act = 'callOff' | 'again' | 'cameBack'
const actsOn = ({ channel, state }: Message): readonly Act[] => {
  if (state === 'waiting') return ['callOff']
  if (channel === 'text') return []
  if (state === 'unsure') return ['again', 'cameBack']
  return state === 'sent' ? ['cameBack'] : state === 'failed' || state === 'refused' ? ['again'] : []
}

/** One message, what became of it, and what can be done with it: called off while it waits, sent again, or it came back. */
export function MessageRow({ message, busy, onAct }: { message: Message; busy: boolean; onAct: (act: Act) => void }) {
  const { t } = useTranslation()
  const { customer, visitDay, text, state, tries, sendAfter, sentAt, language, channel, phone, email, said } = message
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
        <Typography component="span" variant="body2" sx={{ display: 'block' }}>
          {channel === 'mail'
            ? t('reminding.toAddress', { to: email ?? '' })
            : t('reminding.toNumber', { to: phone ?? '' })}
        </Typography>
        {said !== null && (
          <Typography component="span" variant="body2" sx={{ display: 'block', color: ink('madder') }}>
            {t('mail.said', { said })}
          </Typography>
        )}
        {state === 'unsure' && (
          <Typography component="span" variant="body2" sx={{ display: 'block', color: ink('madder') }}>
            {t('reminding.unsureWhy')}
          </Typography>
        )}
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
        <Allowed right="messages">
          <Stack direction="row" sx={{ flexWrap: 'wrap', justifyContent: { sm: 'flex-end' } }}>
            {actsOn(message).map((act) => (
              <Button
                key={act}
                color={act === 'again' ? 'primary' : 'error'}
                disabled={busy}
                onClick={() => onAct(act)}
                aria-label={`${t(`reminding.${act}`)}: ${customer.name}`}
                sx={{ minHeight: 44, px: 1 }}
              >
                {t(`reminding.${act}`)}
              </Button>
            ))}
          </Stack>
        </Allowed>
      </Stack>
    </Box>
  )
}
