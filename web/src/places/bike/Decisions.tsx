import { Box, Button, Radio, RadioGroup, FormControlLabel, Stack, Typography } from '@mui/material'
import { assumptionsWith } from '@pelrin/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type BikeRecord, type DecisionKind } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { day, distance, unitOf } from '../../messages/format.ts'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ink } from '../../theme/theme.ts'

/** What a mechanic decided otherwise, beside the verdict; a decision that no longer stands stays readable. */
export function Decisions({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [withdrawn, setWithdrawn] = useState<string | null>(null)
  if (record.decisions.length === 0) return null
  return (
    <Box component="section" aria-label={t('bike.decisionNow')} data-testid="decisions">
      {record.decisions.map((decision) => (
        <Stack
          key={decision.id}
          direction="row"
          sx={{
            gap: 1.5,
            alignItems: 'center',
            borderLeft: `4px solid ${decision.stands ? ink('brass') : ink('line')}`,
            pl: 1.5,
            py: 0.25,
            mb: 0.5,
            opacity: decision.stands ? 1 : 0.7,
          }}
        >
          <Box sx={{ flex: 1 }}>
            <Typography sx={{ fontWeight: decision.stands ? 700 : 400 }}>
              {t('bike.decided', { decision: t(`bike.decision.${decision.decision}`), reason: decision.reason })}
            </Typography>
            <Typography variant="body2" color="textSecondary">
              {t('bike.decidedBy', { person: decision.person, date: day(decision.occurredAt) })}
              {!decision.stands && `, ${t('bike.decisionOver')}`}
            </Typography>
          </Box>
          {decision.stands && (
            <Allowed right="decide">
              <Button onClick={() => setWithdrawn(decision.id)}>{t('bike.withdraw')}</Button>
            </Allowed>
          )}
        </Stack>
      ))}
      {withdrawn !== null && (
        <ReasonDialog
          access={endpoints.withdrawDecision.access}
          title={t('bike.withdrawTitle')}
          go={t('bike.withdraw')}
          onClose={() => setWithdrawn(null)}
          onReason={async (reason) => {
            const id = v7()
            const changed = await ask(endpoints.withdrawDecision, {
              params: { id: withdrawn },
              body: { id, reason },
              key: id,
            })
            await showAnswer(client, keys.bike(record.summary.id), changed)
            await client.invalidateQueries({ queryKey: keys.lineUp })
            await client.invalidateQueries({ queryKey: keys.rack })
          }}
        />
      )}
    </Box>
  )
}

/** Deciding otherwise: what, and why. */
export function DecideDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const choices: readonly DecisionKind[] = record.summary.verdict === 'change' ? ['ride-on', 'spare'] : ['change-early']
  const [decision, setDecision] = useState<DecisionKind>(choices[0]!)
  const { decidedCheckKm, decidedCheckDays } = assumptionsWith(record.assumptions).verdict
  const verdictId = record.verdict?.id
  return (
    <ReasonDialog
      access={endpoints.decide.access}
      title={t('bike.decideTitle')}
      go={t('app.save')}
      ready={verdictId !== undefined}
      onClose={onClose}
      onReason={async (reason) => {
        const id = v7()
        const changed = await ask(endpoints.decide, {
          params: { id: record.summary.id },
          body: { id, verdictId: verdictId ?? '', decision, reason },
          key: id,
        })
        await showAnswer(client, keys.bike(record.summary.id), changed)
        await client.invalidateQueries({ queryKey: keys.lineUp })
        await client.invalidateQueries({ queryKey: keys.rack })
      }}
    >
      <RadioGroup
        value={decision}
        onChange={(event) => setDecision(event.target.value as DecisionKind)}
        aria-label={t('bike.decideTitle')}
      >
        {choices.map((one) => (
          <FormControlLabel key={one} value={one} control={<Radio />} label={t(`bike.decision.${one}`)} />
        ))}
      </RadioGroup>
      <Typography variant="body2" color="textSecondary">
        {t('bike.decideNote', {
          km: distance(decidedCheckKm, unitOf(record)),
          days: decidedCheckDays,
        })}
      </Typography>
    </ReasonDialog>
  )
}
