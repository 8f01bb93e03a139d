import { useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { CLICKS, waitsForLook, type JobEntry, type SprocketAdvice } from '@pelrin/core'
import type { Job } from '@pelrin/contract'
import { Beside } from '../../pieces/Beside.tsx'
import { OfBike } from '../../pieces/OfBike.tsx'
import { BeginJob } from './BeginJob.tsx'
import { CloseJob } from './CloseJob.tsx'
import { EndedJob } from './EndedJob.tsx'
import { JobHead } from './JobHead.tsx'
import { JobNotes } from './JobNotes.tsx'
import { StepList } from './StepList.tsx'
import { LOOKS, seen } from './jointSeen.ts'
import { StepPane } from './StepPane.tsx'
import { StopJob } from './StopJob.tsx'
import { useBikeJob, useJobNow } from './useJob.ts'
import { useCommands } from '../../keys/useCommands.ts'

/** The job on a bike: begun, one step at a time, closed. */
export function JobPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const found = useBikeJob(id)
  const [another, setAnother] = useState(false)
  useCommands('jobOfBike', {
    // Back here after: a job is not done before its chain is measured.
    measure: () => navigate(`/bikes/${id}/measure?back=job`),
    parts: () => navigate(`/bikes/${id}/parts`),
    record: () => navigate(`/bikes/${id}`),
  })
  const job = found.data?.job ?? null
  const open = job?.state === 'open' ? job : null
  return (
    <OfBike
      bikeId={id}
      title={t('place.job')}
      needs={[found]}
      also={open ? [open.parts.chain, open.parts.joint].filter((part) => part !== null).join(', ') : undefined}
    >
      {({ summary, customer, chain }) =>
        open ? (
          <OpenJob key={open.id} job={open} advice={summary.advice} bike={`${customer.name}, ${summary.label}`} />
        ) : job && !another ? (
          <EndedJob job={job} baselineWanted={chain?.baselineWanted ?? false} onAnother={() => setAnother(true)} />
        ) : (
          <BeginJob bikeId={id} estimate={found.data?.estimate ?? null} />
        )
      }
    </OfBike>
  )
}

function OpenJob({ job, advice, bike }: { job: Job; advice: SprocketAdvice | null; bike: string }) {
  const { now, events, waiting, say } = useJobNow(job, bike)
  const [chosen, setChosen] = useState<string | null>(null)
  const { steps, next, paused } = now
  const doneButton = useRef<HTMLButtonElement>(null)
  const asked = useRef<HTMLInputElement | HTMLButtonElement>(null)
  /** Whatever was pressed beside it, the next key is for the step again. */
  const toDone = (): void => doneButton.current?.focus()
  const sayBeside: typeof say = (said) => {
    say(said)
    toDone()
  }
  const chosenAt = steps.findIndex(({ id }) => id === chosen)
  // '' is the closing, which is asked for before all is done, by what can only be done after it.
  const at = chosen === '' ? steps.length : chosenAt >= 0 ? chosenAt : next ? steps.indexOf(next) : steps.length
  const step = steps[at]
  const move = (by: number): void => {
    const to = steps[Math.min(steps.length - 1, Math.max(0, at + by))]
    if (to) setChosen(to.id)
  }
  /** On to the first that is not done behind it; behind the last, to what was left out before. */
  const onward = (): void => {
    const after = steps.slice(at + 1).find((one) => one.done === null && one.asks !== 'baseline')
    setChosen(after?.id ?? null)
  }
  const entered = (entry: JobEntry): void => {
    if (!step) return
    if (paused) say({ kind: 'resume' })
    say({ kind: 'entered', step: step.id, entry })
    if (entry.asks === 'click' && entry.click !== 'firm') return
    onward()
    toDone()
  }
  const done = (): void => {
    if (!step || waitsForLook(step.id, now.plan)) return
    if (step.done === null && step.asks !== null) {
      // A number is not a tick: it is typed, and one more press on an empty field is no answer.
      if (step.asks === 'baseline') setChosen('')
      else asked.current?.focus()
      return
    }
    if (paused) say({ kind: 'resume' })
    if (!step.done) say({ kind: 'tick', step: step.id })
    onward()
  }
  useCommands('job', {
    done,
    on: () => move(1),
    back: () => move(-1),
    undo: step?.done ? () => say({ kind: 'untick', step: step.id }) : null,
    look:
      step?.id === 'identify-joint'
        ? (digit) => flushSync(() => say(seen(LOOKS[digit - 1]!)))
        : step?.asks === 'click'
          ? (digit) => CLICKS[digit - 1] && entered({ asks: 'click', click: CLICKS[digit - 1]! })
          : null,
  })
  return (
    <Beside
      width={360}
      fixed
      beside={
        <>
          <JobHead job={job} now={now} events={events} waiting={waiting} say={sayBeside} />
          <StepList
            now={now}
            at={at}
            onChoose={(i) => {
              setChosen(steps[i]?.id ?? null)
              toDone()
            }}
          />
          <JobNotes events={events} say={say} />
          <StopJob job={job} />
        </>
      }
    >
      {step ? (
        <StepPane
          job={job}
          advice={advice}
          step={step}
          now={now}
          at={at}
          doneButton={doneButton}
          asked={asked}
          onEntered={entered}
          onDone={done}
          onBack={() => move(-1)}
          say={sayBeside}
        />
      ) : (
        <CloseJob job={job} now={now} />
      )}
    </Beside>
  )
}
