import { Box, Button } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { endpoints, type CatalogueItem, type StockMovement } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { numberWanted, textIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { useShowPart } from './useShowPart.ts'

export type MovementKind = StockMovement['kind']

/** Writes down how many came, were used, or are there. */
export function Movement({ item, kind, onDone }: { item: CatalogueItem; kind: MovementKind; onDone: () => void }) {
  const { t } = useTranslation()
  const show = useShowPart()
  const form = useWriteForm({
    access: endpoints.moveStock.access,
    schema: endpoints.moveStock.body,
    start: { quantity: '', note: '' },
    read: ({ quantity, note }, id) => ({ id, kind, quantity: numberWanted(quantity), note: textIn(note) }),
    send: async (body, { id }) => show(await ask(endpoints.moveStock, { params: { id: item.id }, key: id, body })),
    done: onDone,
  })
  return (
    <Box
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return
        event.stopPropagation()
        onDone()
      }}
    >
      <FormOf
        form={form}
        sx={{ display: 'flex', flexDirection: { xs: 'column', sm: 'row' }, columnGap: 1.5, alignItems: 'flex-start' }}
      >
        <Line name="quantity" label={t(`catalogue.quantity.${kind}`)} of="whole" autoFocus sx={{ width: 230 }} />
        <Line name="note" label={t('catalogue.note')} sx={{ flex: 1 }} />
        <Button type="submit" variant="contained" disabled={form.busy} sx={{ height: 56 }}>
          {t('catalogue.write')}
        </Button>
        <RefusedElsewhere form={form} />
      </FormOf>
    </Box>
  )
}
