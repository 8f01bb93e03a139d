import { Box, Button, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useState, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import * as v from 'valibot'
import {
  CHAIN_HANGS,
  ON_BIKE_LOOKS,
  ON_BIKE_WAYS,
  onBikePitches,
  type ChainHangs,
  type JobEntry,
  type OnBikeLook,
  type OnBikeWay,
  type StepNow,
} from '@pelrin/core'
import { Pitches } from '@pelrin/contract'
import { ClickButtons } from '../../pieces/ClickButtons.tsx'
import { OnBikeDrawing } from '../../pieces/OnBikeDrawing.tsx'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { problemText } from '../../messages/said.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import type { Said } from './useJob.ts'

/** What a step asks to be typed or chosen: it is done by that, or left out with a reason. */
export function StepEntry({
  step,
  wanted,
  addPitches,
  first,
  onEntered,
  say,
}: {
  step: StepNow
  /** The count the plan wants. */
  wanted: number
  /** What the drive wants added to a loop that is wrapped round. */
  addPitches: number
  /** What takes the focus when the step is to be done. */
  first: RefObject<HTMLInputElement | HTMLButtonElement | null>
  onEntered: (entry: JobEntry) => void
  say: (said: Said) => void
}) {
  const { t } = useTranslation()
  const [leaving, setLeaving] = useState(false)
  const { asks, done } = step
  if (asks === null || asks === 'baseline') return null
  if (done?.leftOut != null)
    return <Typography sx={{ fontWeight: 600 }}>{t('jobs.leftOut', { why: done.leftOut })}</Typography>
  return (
    <Box component="section" aria-label={t(`jobs.asks.${asks}`)} sx={{ display: 'grid', gap: 1 }}>
      {asks === 'old-count' && <OldCount done={done} first={first} onEntered={onEntered} />}
      {asks === 'new-count' && <NewCount done={done} wanted={wanted} first={first} onEntered={onEntered} />}
      {asks === 'size' && <Size addPitches={addPitches} first={first} onEntered={onEntered} />}
      {asks === 'way' && <Way first={first} onEntered={onEntered} />}
      {asks === 'click' && <Clicked done={done} first={first} onEntered={onEntered} />}
      {done === null && asks !== 'click' && (
        <Button onClick={() => setLeaving(true)} sx={{ justifySelf: 'start', px: 1 }}>
          {t('jobs.leaveOut')}
        </Button>
      )}
      {leaving && (
        <ReasonDialog
          access="record"
          title={t('jobs.leaveOutTitle')}
          go={t('jobs.leaveOut')}
          onClose={() => setLeaving(false)}
          onReason={(why) => {
            say({ kind: 'left-out', step: step.id, why })
            return Promise.resolve()
          }}
        />
      )}
    </Box>
  )
}

interface Asked {
  readonly done: StepNow['done']
  readonly first: RefObject<HTMLInputElement | HTMLButtonElement | null>
  readonly onEntered: (entry: JobEntry) => void
}

/** A count of pitches as it is typed: a number a chain can have, or what is wrong with it. */
function useCount(before: number | undefined) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState(before === undefined ? '' : String(before))
  const [wrong, setWrong] = useState<string | null>(null)
  const read = (): number | null => {
    const found = v.safeParse(Pitches, typedNumber(typed) ?? NaN)
    setWrong(found.success ? null : problemText(t, typed.trim() === '' ? 'number-missing' : found.issues[0].message))
    return found.success ? found.output : null
  }
  return { typed, setTyped, wrong, read }
}

function Count({
  count: { typed, setTyped, wrong },
  label,
  first,
  onEnter,
}: {
  count: ReturnType<typeof useCount>
  label: string
  first: Asked['first']
  onEnter: () => void
}) {
  return (
    <TextField
      inputRef={first}
      label={label}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return
        event.preventDefault()
        onEnter()
      }}
      error={wrong !== null}
      helperText={wrong ?? ' '}
      slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      sx={{ width: 240 }}
    />
  )
}

/** The old chain's count, and how it hung: what says whether its length was right. */
function OldCount({ done, first, onEntered }: Asked) {
  const { t } = useTranslation()
  const before = done?.entry?.asks === 'old-count' ? done.entry : null
  const count = useCount(before?.pitches)
  const [small, setSmall] = useState<ChainHangs | null>(before?.small ?? null)
  const [large, setLarge] = useState<ChainHangs | null>(before?.large ?? null)
  const enter = (): void => {
    const pitches = count.read()
    if (pitches !== null) onEntered({ asks: 'old-count', pitches, small, large })
  }
  return (
    <Stack direction="row" sx={{ gap: 2.5, flexWrap: 'wrap', alignItems: 'flex-start' }}>
      <Count count={count} label={t('jobs.countedOld')} first={first} onEnter={enter} />
      <Hangs label={t('jobs.hangsSmall')} chosen={small} onChoose={setSmall} />
      <Hangs label={t('jobs.hangsLarge')} chosen={large} onChoose={setLarge} />
      <Button variant="outlined" onClick={enter} sx={{ minHeight: 56, px: 3, alignSelf: 'center' }}>
        {t('app.save')}
      </Button>
    </Stack>
  )
}

function Hangs({
  label,
  chosen,
  onChoose,
}: {
  label: string
  chosen: ChainHangs | null
  onChoose: (one: ChainHangs | null) => void
}) {
  const { t } = useTranslation()
  return (
    <Box>
      <Typography variant="body2">{label}</Typography>
      <ToggleButtonGroup
        exclusive
        value={chosen}
        aria-label={label}
        onChange={(_, one: ChainHangs | null) => onChoose(one)}
      >
        {CHAIN_HANGS.map((one) => (
          <ToggleButton key={one} value={one} sx={{ minHeight: 52, px: 1.75 }}>
            {t(`jobs.hangs.${one}`)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Box>
  )
}

function NewCount({ done, first, wanted, onEntered }: Asked & { wanted: number }) {
  const { t } = useTranslation()
  const before = done?.entry?.asks === 'new-count' ? done.entry : null
  const count = useCount(before?.pitches)
  const enter = (): void => {
    const pitches = count.read()
    if (pitches !== null) onEntered({ asks: 'new-count', pitches })
  }
  return (
    <Stack direction="row" sx={{ gap: 2, alignItems: 'flex-start', flexWrap: 'wrap' }}>
      <Count count={count} label={t('jobs.countedNew', { wanted })} first={first} onEnter={enter} />
      <Button variant="outlined" onClick={enter} sx={{ minHeight: 56, px: 3 }}>
        {t('app.save')}
      </Button>
    </Stack>
  )
}

/** A length found on the bike: how it was tried, how it looks, and the count. */
function Size({ addPitches, first, onEntered }: Omit<Asked, 'done'> & { addPitches: number }) {
  const { t } = useTranslation()
  const [way, setWay] = useState<OnBikeWay>('wrapped')
  const [look, setLook] = useState<OnBikeLook | null>(null)
  const count = useCount(undefined)
  const typed = typedNumber(count.typed)
  const enter = (): void => {
    const counted = count.read()
    if (counted !== null) onEntered({ asks: 'size', way, counted, addPitches })
  }
  return (
    <Stack sx={{ gap: 1.5 }}>
      <ToggleButtonGroup
        exclusive
        value={way}
        aria-label={t('jobs.asks.size')}
        onChange={(_, one: OnBikeWay | null) => one && setWay(one)}
        sx={{ flexWrap: 'wrap' }}
      >
        {ON_BIKE_WAYS.map((one) => (
          <ToggleButton key={one} value={one} sx={{ minHeight: 52, px: 1.75 }}>
            {t(`jobs.sizeWay.${one}`)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Typography>{t(`jobs.sizeHow.${way}`)}</Typography>
      <Stack
        direction="row"
        role="group"
        aria-label={t('steps.size-on-bike.check')}
        sx={{ gap: 1.5, flexWrap: 'wrap' }}
      >
        {ON_BIKE_LOOKS.map((one) => (
          <Button
            key={one}
            variant={look === one ? 'contained' : 'outlined'}
            aria-pressed={look === one}
            onClick={() => setLook(one)}
            sx={{ flexDirection: 'column', gap: 0.5, bgcolor: 'background.paper', color: 'text.primary', p: 1 }}
          >
            <OnBikeDrawing way={way} look={one} label={t(`jobs.sizeLook.${one}`)} />
            {t(`jobs.sizeLook.${one}`)}
          </Button>
        ))}
      </Stack>
      {look !== null && <Typography sx={{ fontWeight: 600 }}>{t(`jobs.sizeThen.${look}`)}</Typography>}
      <Stack direction="row" sx={{ gap: 2, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <Count count={count} label={t('jobs.sizeCounted')} first={first} onEnter={enter} />
        <Button variant="outlined" onClick={enter} sx={{ minHeight: 56, px: 3 }}>
          {t('app.save')}
        </Button>
        {typed !== undefined && Number.isInteger(typed) && typed >= 20 && typed <= 400 && (
          <Typography sx={{ pt: 2 }}>
            {t('jobs.sizeComesTo', { pitches: onBikePitches({ way, counted: typed }, addPitches) })}
          </Typography>
        )}
      </Stack>
    </Stack>
  )
}

function Way({ first, onEntered }: Omit<Asked, 'done'>) {
  const { t } = useTranslation()
  return (
    <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap' }}>
      {(['marked', 'not-known'] as const).map((way, i) => (
        <Button
          key={way}
          ref={i === 0 ? (first as RefObject<HTMLButtonElement>) : null}
          variant="outlined"
          onClick={() => onEntered({ asks: 'way', way })}
          sx={{ minHeight: 56, px: 3, fontSize: 'size.lead' }}
        >
          {t(`jobs.way.${way}`)}
        </Button>
      ))}
    </Stack>
  )
}

function Clicked({ done, first, onEntered }: Asked) {
  const { t } = useTranslation()
  const before = done?.entry?.asks === 'click' ? done.entry.click : null
  return (
    <ClickButtons
      said={before}
      label={t('closing.how')}
      first={first as RefObject<HTMLButtonElement>}
      onSay={(click) => onEntered({ asks: 'click', click })}
    />
  )
}
