import { Box, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { flushSync } from 'react-dom'
import { useFormContext, useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { CLICKS, JOB_REASONS, OLD_FATES, type Click, type JobEntry, type JobNow, type StepNow } from '@pelrin/core'
import { endpoints, type FittedPart, type Job } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { Choice } from '../../forms/Choice.tsx'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { numberWanted } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { useBikeChains } from '../../api/queries.ts'
import { ClickButtons } from '../../pieces/ClickButtons.tsx'
import { ClosingDialog } from '../../pieces/ClosingDialog.tsx'
import { FittedField, UNSAID_PART } from '../../pieces/FittedField.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { afterOutbox } from './useJob.ts'

/** What is asked at the end of a job, as it is typed. */
interface TypedClosing {
  readonly oldReason: JobNow['plan']['reason']
  readonly oldFate: JobNow['plan']['oldFate']
  readonly click: Click | null
  readonly byFeel: boolean
  readonly linkPartId: string | null
  readonly cassette: FittedPart | null
  readonly minutes: string
  readonly pitches: string
}

/** Closes a job: what it writes is asked once, with what is known already filled in. */
export function CloseJob({ job, now }: { job: Job; now: JobNow }) {
  const { t } = useTranslation()
  const oldBack = now.plan.outcomes.includes('skips-old-back')
  const skipped = now.plan.outcomes.includes('skips-cassette')
  const entryAt = (id: StepNow['id']): JobEntry | null => now.steps.find((step) => step.id === id)?.done?.entry ?? null
  const [heard, counted] = [entryAt('look-click'), entryAt('length-new')]
  const clicks = now.plan.joint.kind === 'link' && !oldBack
  const start: TypedClosing = {
    oldReason: now.plan.reason,
    oldFate: now.plan.oldFate,
    click: heard?.asks === 'click' ? heard.click : null,
    byFeel: false,
    linkPartId: null,
    cassette: skipped ? UNSAID_PART : null,
    minutes: String(Math.max(1, Math.round(now.minutes))),
    pitches: String(counted?.asks === 'new-count' ? counted.pitches : now.plan.chain.pitches),
  }
  const form = useWriteForm({
    access: endpoints.closeJob.access,
    ...staleOfBike(job.bikeId),
    schema: endpoints.closeJob.body,
    start,
    read: ({ click, minutes, pitches, ...rest }: TypedClosing) => ({
      ...rest,
      click: clicks || oldBack ? click : null,
      minutes: numberWanted(minutes),
      pitches: numberWanted(pitches),
    }),
    send: (body, { id }) =>
      afterOutbox(() =>
        // What it was asked with is part of the key: a second try after a correction is another request.
        ask(endpoints.closeJob, { params: { id: job.id }, key: `${id}-${wordsOf(body)}`, body }),
      ),
    done: () => undefined,
  })
  // At once: Enter may follow in the same breath.
  const say = (click: Click | null): void => flushSync(() => form.fields.setValue('click', click))
  const [closingOld, setClosingOld] = useState(false)
  const on = useBikeChains(oldBack ? job.bikeId : undefined).data?.on ?? null
  /** The old chain goes back on: with which link, and how it clicked, is asked before anything is written. */
  const close = (): void => {
    if (oldBack && on) setClosingOld(true)
    else form.submit()
  }
  useCommands('jobClose', { click: clicks ? (digit) => say(CLICKS[digit - 1]!) : null, close })
  return (
    <FormOf form={form} label={t('jobs.closing')} sx={{ display: 'grid', gap: 2, maxWidth: 720 }}>
      <Typography component="h2" sx={{ fontSize: 'size.big', fontWeight: 700 }}>
        {t('jobs.closing')}
      </Typography>
      {clicks && <HowItClicked onSay={say} />}
      {skipped && <Cassette />}
      <Box sx={{ display: 'grid', columnGap: 2, gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' } }}>
        <Choice
          name="oldReason"
          label={t('jobs.why')}
          options={JOB_REASONS.map((one) => [one, t(`jobs.reason.${one}`)])}
        />
        <Choice
          name="oldFate"
          label={t('jobs.fate')}
          options={OLD_FATES.map((one) => [one, t(`jobs.fateOf.${one}`)])}
        />
        <Line name="pitches" label={t('jobs.count')} of="whole" />
        <Line name="minutes" label={t('jobs.taken')} of="number" />
      </Box>
      <RefusedElsewhere form={form} />
      {closingOld && on && (
        <ClosingDialog
          bikeId={job.bikeId}
          joint={on.joint}
          mustBeNew
          title={t('closing.title', { chain: on.name })}
          busy={form.busy}
          wrong={form.away}
          onClose={() => setClosingOld(false)}
          onClosed={({ click, linkPartId }) => {
            flushSync(() => {
              form.fields.setValue('click', click)
              form.fields.setValue('linkPartId', linkPartId)
            })
            setClosingOld(false)
            form.submit()
          }}
        />
      )}
      <KeyButton
        of="jobClose.close"
        {...(oldBack ? { onClick: close } : { type: 'submit' as const })}
        variant="contained"
        disabled={form.busy}
        sx={{ minHeight: 72, fontSize: 'size.say' }}
      >
        {t('jobs.close')}
      </KeyButton>
    </FormOf>
  )
}

/** What is sent, in a line. */
const wordsOf = ({ cassette, ...body }: Readonly<Record<string, unknown>> & { cassette: FittedPart | null }): string =>
  [...Object.values(body).map(String), cassette?.partId ?? encodeURIComponent(cassette?.name ?? '')].join('-')

/** Which cassette was fitted because the new chain skipped. */
function Cassette() {
  const { t } = useTranslation()
  const { setValue, formState } = useFormContext<TypedClosing>()
  const cassette = useWatch<TypedClosing, 'cassette'>({ name: 'cassette' })
  const wrong = formState.errors.cassette as { partId?: { message?: string } } | undefined
  return (
    <Stack sx={{ gap: 1 }}>
      <Typography variant="h2" component="h3">
        {t('jobs.cassette')}
      </Typography>
      <FittedField
        item="cassette"
        value={cassette ?? UNSAID_PART}
        wrong={wrong?.partId?.message}
        onChange={(fitted) => setValue('cassette', fitted)}
      />
    </Stack>
  )
}

/** How firmly the link went home, which is heard once. */
function HowItClicked({ onSay }: { onSay: (click: Click | null) => void }) {
  const { t } = useTranslation()
  const click = useWatch<{ click: Click | null }, 'click'>({ name: 'click' })
  return (
    <Stack sx={{ gap: 0.5 }}>
      <Typography variant="h2" component="h3">
        {t('jobs.click')}
      </Typography>
      <ClickButtons said={click} label={t('jobs.click')} onSay={onSay} />
    </Stack>
  )
}
