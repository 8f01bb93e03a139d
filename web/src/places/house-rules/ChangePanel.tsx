import { Alert, Box, Button, CircularProgress, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Moved, RuleChange } from '@pelrin/contract'
import { may } from '@pelrin/contract'
import { ProblemError } from '../../api/client.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Plate } from '../../pieces/Plate.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { useRuleChange } from './useRuleChange.ts'
import { problemText } from '../../messages/said.ts'

/** What a change would do, why it is made, and making it. Nothing is written before it is said what moves. */
export function ChangePanel({
  change,
  onProblems,
  onDone,
}: {
  /** Null while it is not whole or changes nothing. */
  change: RuleChange | null
  /** What the server named wrong, by field. */
  onProblems?: (problems: Readonly<Record<string, string>>) => void
  onDone: () => void
}) {
  const { t } = useTranslation()
  const { session, tell } = useSurroundings()
  const [reason, setReason] = useState('')
  const [reasonMissing, setReasonMissing] = useState(false)
  const { preview, make } = useRuleChange(change, (moved) => {
    tell(t('rules.saved', { count: moved.moved.length }))
    onDone()
  })
  const error = make.error ?? preview.error
  const problem = error instanceof ProblemError ? error.problem : null
  const save = (): void => {
    if (reason.trim() === '') {
      setReasonMissing(true)
      return
    }
    if (change !== null)
      make.mutate(
        { made: change, reason: reason.trim() },
        {
          onError: (failed) => {
            if (failed instanceof ProblemError)
              onProblems?.(Object.fromEntries((failed.problem.fields ?? []).map(({ path, detail }) => [path, detail])))
          },
        },
      )
  }
  if (!may(session.person.role, 'owner'))
    return (
      <Typography variant="body2" color="textSecondary">
        {t('problems.only-owner')}
      </Typography>
    )
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Box aria-live="polite" data-testid="moves">
        {change === null ? (
          <Typography variant="body2" color="textSecondary">
            {t('rules.nothingChanged')}
          </Typography>
        ) : preview.data ? (
          <Moves moved={preview.data} />
        ) : problem ? null : (
          <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
            <CircularProgress size={18} />
            <Typography variant="body2">{t('rules.looking')}</Typography>
          </Stack>
        )}
      </Box>
      {error && (
        <Alert severity="error" icon={false}>
          {problem
            ? (problem.fields?.map(({ detail }) => detail).join(' ') ?? problemText(t, problem.code))
            : t('app.notSaved')}
        </Alert>
      )}
      <TextField
        label={t('rules.reason')}
        value={reason}
        onChange={(event) => {
          setReason(event.target.value)
          setReasonMissing(false)
        }}
        error={reasonMissing}
        helperText={reasonMissing ? t('problems.text-missing') : undefined}
        slotProps={{ htmlInput: { maxLength: 200 } }}
      />
      <Button
        variant="contained"
        disabled={change === null || make.isPending || !preview.data}
        onClick={save}
        sx={{ minHeight: 56 }}
      >
        {make.isPending ? t('measure.saving') : t('rules.save')}
      </Button>
    </Stack>
  )
}

/** Which verdicts a change moves, from what to what. */
export function Moves({ moved }: { moved: Moved }) {
  const { t } = useTranslation()
  return (
    <Box>
      <Typography sx={{ fontWeight: 600 }}>
        {t('rules.judged', { count: moved.judged })} {t('rules.moves', { count: moved.moved.length })}
      </Typography>
      <Box
        component="ul"
        sx={{ listStyle: 'none', m: 0, mt: 0.5, p: 0, maxHeight: 148, overflow: 'auto' }}
        tabIndex={0}
      >
        {moved.moved.map(({ bikeId, bike, customer, from, to }) => (
          <Box
            component="li"
            key={bikeId}
            sx={{
              display: 'grid',
              gridTemplateColumns: 'minmax(0, 1fr) 34px 14px 34px auto',
              gap: 1,
              alignItems: 'center',
              py: 0.4,
              borderTop: 1,
              borderColor: 'divider',
            }}
          >
            <Typography variant="body2" noWrap component={Link} to={`/bikes/${bikeId}`} sx={{ color: 'inherit' }}>
              {customer}, {bike}
            </Typography>
            <Plate shape={VERDICT_LOOK[from].plate} colour={VERDICT_LOOK[from].colour} height={12} />
            <span aria-hidden>→</span>
            <Plate shape={VERDICT_LOOK[to].plate} colour={VERDICT_LOOK[to].colour} height={12} />
            <Typography variant="body2" sx={{ fontWeight: 600, color: VERDICT_LOOK[to].colour, minWidth: 118 }}>
              {t(`word.${to}`)}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  )
}
