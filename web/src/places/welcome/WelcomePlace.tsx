import { Box, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ProblemError } from '../../api/client.ts'
import { Plate } from '../../pieces/Plate.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { ink } from '../../theme/theme.ts'
import { ChooseSecrets } from './ChooseSecrets.tsx'
import { FirstDayForm } from './FirstDayForm.tsx'
import { tokenInAddress, useWelcome } from './useWelcome.ts'

/** Where a one-time link leads: the first day of a shop, somebody's first time, or the way back of an owner. */
export function WelcomePlace() {
  const { t } = useTranslation()
  const [token] = useState(tokenInAddress)
  const welcome = useWelcome(token)
  useTitle(t('welcome.title'))
  if (welcome.isPending) return <Loading />
  const over = welcome.error instanceof ProblemError && welcome.error.problem.status < 500
  return (
    <Box component="main" sx={{ minHeight: '100dvh', px: { xs: 2, md: 4 }, py: 3, maxWidth: 1240, mx: 'auto' }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, mb: 2 }}>
        <Plate shape="whole" colour={ink('steel')} height={26} />
        <Typography sx={{ fontSize: 'size.say', fontWeight: 700 }}>{t('app.name')}</Typography>
      </Stack>
      {welcome.data ? (
        welcome.data.kind === 'first-day' ? (
          <FirstDayForm token={token} welcome={welcome.data} />
        ) : (
          <ChooseSecrets token={token} welcome={welcome.data} />
        )
      ) : over ? (
        <Over />
      ) : (
        <Failure error={welcome.error} again={() => void welcome.refetch()} />
      )}
    </Box>
  )
}

/** A link that opens nothing: who makes another. */
function Over() {
  const { t } = useTranslation()
  return (
    <Stack role="alert" sx={{ gap: 1.5, maxWidth: 640 }}>
      <Typography variant="h1">{t('welcome.over')}</Typography>
      <Typography>{t('welcome.overColleague')}</Typography>
      <Typography>{t('welcome.overOwner')}</Typography>
      <Box component="code" sx={{ bgcolor: ink('sheet'), border: 1, borderColor: 'divider', px: 1.5, py: 1 }}>
        npm run owner -- --new-token
      </Box>
    </Stack>
  )
}
