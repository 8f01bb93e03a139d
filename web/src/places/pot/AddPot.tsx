import { Button } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { numberWanted } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'

/** A first pot, or a further one. */
export function AddPot() {
  const { t } = useTranslation()
  const client = useQueryClient()
  const form = useWriteForm({
    access: endpoints.addPot.access,
    schema: endpoints.addPot.body,
    start: { name: '', capacity: '4' },
    read: ({ name, capacity }, id) => ({ id, name, capacity: numberWanted(capacity) }),
    send: (body, { id }) => ask(endpoints.addPot, { key: id, body }),
    done: (board) => void showAnswer(client, keys.pot, board),
  })
  return (
    <FormOf form={form} sx={{ display: 'grid', gap: 0.5, pt: 1 }}>
      <Line name="name" label={t('pot.potName')} />
      <Line name="capacity" label={t('pot.potCapacity')} of="whole" />
      <RefusedElsewhere form={form} />
      <Button type="submit" variant="outlined" disabled={form.busy}>
        {t('pot.addPot')}
      </Button>
    </FormOf>
  )
}
