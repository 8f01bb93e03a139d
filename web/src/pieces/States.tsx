import { Button, Stack, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { ProblemError } from '../api/client.ts'
import { ink } from '../theme/theme.ts'
import { Plate } from './Plate.tsx'
import { problemText } from '../messages/said.ts'

/** A place with nothing in it yet, and what would fill it. */
export function Empty({ children }: { children: ReactNode }) {
  return (
    <Stack sx={{ alignItems: 'center', gap: 2, p: 4, textAlign: 'center', color: 'text.secondary' }}>
      <Plate shape="bare" colour={ink('faint')} height={28} />
      <Typography sx={{ maxWidth: 420 }}>{children}</Typography>
    </Stack>
  )
}

/** Something is being fetched. Shown after a moment only, so that quick answers do not flicker. */
export function Loading() {
  const { t } = useTranslation()
  return (
    <Stack
      role="status"
      sx={{
        alignItems: 'center',
        p: 4,
        gap: 2,
        color: 'text.secondary',
        animation: 'appear 0.2s 0.35s both',
        '@keyframes appear': { from: { opacity: 0 }, to: { opacity: 1 } },
      }}
    >
      <Plate shape="dashed" colour={ink('faint')} height={28} />
      <Typography>{t('app.loading')}</Typography>
    </Stack>
  )
}

/** What was asked for did not come: why, and what to do. */
export function Failure({ error, again }: { error: unknown; again?: () => void }) {
  const { t } = useTranslation()
  const problem = error instanceof ProblemError ? error.problem : null
  return (
    <Stack role="alert" sx={{ alignItems: 'center', p: 4, gap: 2, textAlign: 'center' }}>
      <Plate shape="parted" colour={ink('madder')} height={28} />
      <Typography sx={{ maxWidth: 460 }}>
        {problem ? problemText(t, problem.code, { requestId: problem.requestId }) : t('app.notThere')}
      </Typography>
      {problem && problem.status >= 500 && (
        <Typography variant="body2" color="textSecondary">
          {t('app.faultId', { id: problem.requestId })}
        </Typography>
      )}
      {again && (
        <Button variant="outlined" onClick={again}>
          {t('app.tryAgain')}
        </Button>
      )}
    </Stack>
  )
}
