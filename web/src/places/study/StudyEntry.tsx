import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { assumptionsWith, observeSpot, studyOrder, KINDS } from '@pelrin/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type Study } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useInstrument } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite, wrongAt } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ink } from '../../theme/theme.ts'
import { MarksPad } from '../measure/MarksPad.tsx'
import { problemText } from '../../messages/said.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** The next value of whoever is at this bench, one large field, in an order of their own. */
export function StudyEntry({ study }: { study: Study }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { session } = useSurroundings()
  const history = useInstrument(study.instrument.id)
  const [typed, setTyped] = useState('')
  const { wrong, setWrong, busy, write } = useWrite({ access: endpoints.enterStudyValue.access })
  const number = study.people.findIndex(({ id }) => id === session.person.id)
  if (number < 0) return <Typography>{t('problems.study-not-in-it')}</Typography>
  const turns = studyOrder({ spots: study.spots.length, repeats: study.repeats, person: number })
  const next = turns.find(
    (turn) => !study.values.some((value) => value.spot === turn.spot && value.repeat === turn.repeat),
  )
  if (!next)
    return (
      <Stack sx={{ gap: 1 }}>
        <Typography sx={{ fontSize: 'size.head', fontWeight: 600 }}>
          {t('study.done', { name: session.person.name })}
        </Typography>
        <Typography color="textSecondary">{t('study.hand')}</Typography>
      </Stack>
    )
  const known = history.data
  const enter = async (): Promise<void> => {
    if (busy) return
    if (known) {
      const seen = observeSpot({
        record: { ...known.instrument, bias: 0 },
        entry: { typed, pitches: study.pitches },
        assumed: assumptionsWith(known.assumptions),
      })
      if (!seen.ok) {
        setWrong(wrongAt({ typed: problemText(t, seen.problem, { ...seen.values }) }))
        return
      }
    }
    const id = v7()
    await write(async () => {
      const entered = await ask(endpoints.enterStudyValue, {
        params: { id: study.id },
        body: { id, ...next, typed: typed.trim() },
        key: id,
      })
      await showAnswer(client, keys.study(study.id), entered)
    })
  }
  const { marks } = study.instrument
  return (
    <Stack sx={{ gap: 2, maxWidth: 560 }}>
      <Typography color="textSecondary">
        {t('study.turn', { name: session.person.name, done: study.values.length + 1, all: turns.length })}
      </Typography>
      <Stack direction="row" sx={{ gap: 3, alignItems: 'center' }}>
        <Box
          sx={{
            width: 110,
            height: 110,
            borderRadius: '50%',
            border: `3px solid ${ink('edge')}`,
            display: 'grid',
            placeItems: 'center',
            fontSize: 'size.far',
            fontWeight: 700,
            bgcolor: ink('sheet'),
          }}
        >
          {study.spots[next.spot]?.label}
        </Box>
        <TextField
          autoFocus
          label={t('study.shows', { spot: study.spots[next.spot]?.label ?? '' })}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setWrong(null)
          }}
          error={wrong !== null}
          helperText={wrong?.sentence ?? t(`measure.hint.${study.instrument.kind}`)}
          slotProps={{ htmlInput: { autoComplete: 'off', autoCapitalize: 'none' } }}
          sx={{ flex: 1, '& input': { fontSize: 'size.big', fontWeight: 600 } }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return
            event.preventDefault()
            void enter()
          }}
        />
      </Stack>
      {KINDS[study.instrument.kind].pad && marks && <MarksPad marks={marks} typed={typed} onChange={setTyped} />}
      <Allowed right="record">
        <Button
          variant="contained"
          disabled={busy || typed.trim() === ''}
          onClick={() => void enter()}
          sx={{ minHeight: 56 }}
        >
          {t('study.enter')}
        </Button>
      </Allowed>
    </Stack>
  )
}
