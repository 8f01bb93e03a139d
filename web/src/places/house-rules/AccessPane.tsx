import { Box, Stack, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, may, type AccessLog } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { clock, day } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { deviceName } from '../access/deviceName.ts'
import { ink } from '../../theme/theme.ts'

/** Who signed in and who failed to, and what was taken out of the shop or into it. */
export function AccessPane() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const isOwner = may(session.person.role, 'owner')
  const log = useQuery({
    queryKey: keys.access,
    queryFn: ({ signal }) => ask(endpoints.accessLog, { signal }),
    enabled: isOwner,
    staleTime: 0,
  })
  if (!isOwner) return <Typography>{t('access.owner')}</Typography>
  if (log.isPending) return <Loading />
  if (!log.data) return <Failure error={log.error} again={() => void log.refetch()} />
  const { failedToday, entries } = log.data
  return (
    <Stack sx={{ gap: 2, maxWidth: 860 }}>
      <Typography sx={{ fontSize: 'size.say', fontWeight: 700, color: failedToday > 0 ? ink('brass') : 'inherit' }}>
        {t('access.failed', { count: failedToday })}
      </Typography>
      <Box component="ol" aria-label={t('rules.tab.access')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {entries.map((entry) => (
          <Line key={entry.id} entry={entry} />
        ))}
      </Box>
      <Typography color="textSecondary">{t('access.note')}</Typography>
    </Stack>
  )
}

function Line({ entry }: { entry: AccessLog['entries'][number] }) {
  const { t } = useTranslation()
  const { at, action, who, device, address, kind, what, waitSeconds } = entry
  const failed = action === 'sign-in-failed'
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider', py: 1 }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline' }}>
        <Typography sx={{ flex: 1, fontWeight: 600, color: failed ? ink('madder') : 'inherit' }}>
          {failed
            ? t(`access.wrong.${kind === 'pin' ? 'pin' : 'password'}`, { who: who ?? '' })
            : t(`access.did.${action}`, {
                who: who ?? '',
                what: what === null ? '' : t(`access.what.${what}`, { defaultValue: what }),
              })}
        </Typography>
        <Typography color="textSecondary" sx={{ whiteSpace: 'nowrap' }}>
          {t('access.at', { day: day(at), time: clock(at) })}
        </Typography>
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {[
          device === null ? null : deviceName(device),
          address === null ? null : t('access.from', { address }),
          waitSeconds > 0 ? t('access.waits', { minutes: Math.ceil(waitSeconds / 60) }) : null,
        ]
          .filter((part) => part !== null)
          .join(', ')}
      </Typography>
    </Box>
  )
}
