import { Box, Button, Stack, Typography } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, may } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ago, clock, day, number } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { ink } from '../../theme/theme.ts'
import { Refused } from '../../forms/Refused.tsx'

/** Two nights without a backup are one too many, ms. */
const OLD_MS = 50 * 3_600_000

/** The last good backup, those before it, and one made now. */
export function BackupsPane() {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { session, tell } = useSurroundings()
  const { wrong, busy, write } = useWrite({ access: endpoints.makeBackup.access })
  const [openedAt] = useState(() => Date.now())
  const isOwner = may(session.person.role, 'owner')
  const backups = useQuery({
    queryKey: keys.backups,
    queryFn: ({ signal }) => ask(endpoints.backups, { signal }),
    enabled: isOwner,
  })
  if (!isOwner) return <Typography>{t('rules.backup.owner')}</Typography>
  if (backups.isPending) return <Loading />
  if (!backups.data) return <Failure error={backups.error} again={() => void backups.refetch()} />
  const all = backups.data.backups
  if (all === null) return <Typography>{t('rules.backup.none')}</Typography>
  const [last] = all
  const isOld = last !== undefined && openedAt - Date.parse(last.at) > OLD_MS
  const make = async (): Promise<void> => {
    const made = await write(() => ask(endpoints.makeBackup, { long: true }))
    if (!made) return
    await showAnswer(client, keys.backups, made)
    tell(t('rules.backup.made'))
  }
  return (
    <Stack sx={{ gap: 2, maxWidth: 760 }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
        <Typography
          sx={{
            flex: 1,
            fontSize: 'size.say',
            fontWeight: 700,
            color: last === undefined || isOld ? ink('brass') : 'inherit',
          }}
        >
          {last === undefined
            ? t('rules.backup.never')
            : t(isOld ? 'rules.backup.old' : 'rules.backup.last', { ago: ago(last.at) })}
        </Typography>
        <Button variant="contained" disabled={busy} onClick={() => void make()} sx={{ minHeight: 56 }}>
          {t(busy ? 'rules.backup.making' : 'rules.backup.make')}
        </Button>
      </Stack>
      <Refused>{wrong?.sentence}</Refused>
      <Box component="ol" aria-label={t('rules.backup.list')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {all.map(({ file, at, bytes }) => (
          <Box component="li" key={file} sx={{ borderTop: 1, borderColor: 'divider', py: 1 }}>
            <Typography>
              {t('rules.backup.line', { day: day(at), time: clock(at), size: number(bytes / 1024, 0) })}
            </Typography>
            <Typography variant="body2" color="textSecondary">
              {file}
            </Typography>
          </Box>
        ))}
      </Box>
      <Typography color="textSecondary">{t('rules.backup.restore')}</Typography>
    </Stack>
  )
}
