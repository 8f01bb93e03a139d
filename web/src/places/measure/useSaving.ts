import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { BikeRecord, Instrument, Problem } from '@pelrin/contract'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { clock } from '../../messages/format.ts'
import { outbox } from '../../outbox/outbox.ts'
import type { Draft } from './draft.ts'
import type { SpotReading } from './evaluate.ts'
import { saveDraft, sentPlaces } from './save.ts'

/** Saving a draft, and what the server refused of it. */
export function useSaving(record: BikeRecord, corrects: string | null, unit: 'km' | 'mi') {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { session, tell } = useSurroundings()
  const [saving, setSaving] = useState(false)
  const [refusal, setRefusal] = useState<{ problem: Problem; places: readonly number[] } | null>(null)
  const bikeId = record.summary.id

  /** @returns true when the draft is safe and may be forgotten; else the place at fault, if it was one */
  const save = async (
    draft: Draft,
    spots: readonly SpotReading[],
    instrument: Instrument,
    leave: () => void,
  ): Promise<void> => {
    if (saving) return
    setSaving(true)
    const name = `${record.customer.name}, ${record.summary.label}`
    try {
      const saved = await saveDraft({
        draft,
        spots,
        instrument,
        unit,
        bikeId,
        corrects,
        personId: session.person.id,
        title: t('outbox.reading', { bike: name, time: clock(new Date().toISOString()) }),
      })
      if (saved.end === 'refused') {
        setRefusal({ problem: saved.problem, places: sentPlaces(spots) })
        return
      }
      leave()
      if (saved.end === 'arrived') {
        await client.invalidateQueries({ queryKey: keys.bike(bikeId) })
        tell(t('measure.arrived'))
      } else if (saved.end === 'saved') {
        await showAnswer(client, keys.bike(bikeId), saved.record)
        void client.invalidateQueries({ queryKey: keys.lineUp })
        void client.invalidateQueries({ queryKey: keys.rack })
        tell(t('measure.savedToast', { word: t(`wordInside.${saved.record.summary.standing.word}`) }))
      } else tell(t(outbox.keeps() ? 'measure.kept' : 'measure.held'))
    } finally {
      setSaving(false)
    }
  }
  const fields = refusal?.problem.fields ?? []
  return {
    saving,
    save,
    refused: refusal?.problem ?? null,
    clearRefusal: () => setRefusal(null),
    /** What the server named wrong at a place round the chain. */
    wrongAt: (place: number): string | undefined => {
      const sent = refusal?.places.indexOf(place) ?? -1
      return fields.find(({ path }) => path === `spots.${sent}.typed` || path === `spots.${sent}.pitches`)?.code
    },
    wrongIn: (path: string): string | undefined => fields.find((field) => field.path === path)?.code,
    /** What was refused and has no field of its own here. */
    elsewhere: fields.filter(({ path }) => !/^(spots\.\d+\.(typed|pitches)|odometer\.typed|reason)$/.test(path)),
  }
}
