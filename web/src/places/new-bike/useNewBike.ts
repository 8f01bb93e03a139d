import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { usePutOnStand } from '../../app/usePutOnStand.ts'
import { drafts } from '../../drafts/drafts.ts'
import { useFormDraft } from '../../forms/useFormDraft.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { begunWith, NEW_BIKE_DRAFT, newBikeIn, TypedBike, type NewBikeIds } from './newBike.ts'

/** The form of a new bike: begun with what was looked for, or with what was typed when the page went away. */
export function useNewBike(asked: string) {
  const { t } = useTranslation()
  const { tell, session } = useSurroundings()
  const putOnStand = usePutOnStand()
  const [ids] = useState((): NewBikeIds => ({ customer: v7(), chain: v7(), fitting: v7(), odometer: v7() }))
  const [start] = useState(() => {
    const kept = drafts.read(NEW_BIKE_DRAFT, TypedBike)
    return kept && (asked === '' || kept.asked === asked) ? kept : begunWith(asked, session.shop.distanceUnit)
  })
  const form = useWriteForm({
    access: endpoints.addBike.access,
    stale: [keys.rack],
    schema: endpoints.addBike.body,
    start,
    read: (typed: TypedBike, id) => newBikeIn(typed, id, ids),
    send: (body, { id }) => ask(endpoints.addBike, { body, key: id }),
    done: ({ id, label, tag }) => {
      drafts.remove(NEW_BIKE_DRAFT)
      tell(t('newBike.done', { label, tag }))
      putOnStand(id)
    },
  })
  useFormDraft(form, NEW_BIKE_DRAFT)
  return form
}
