import { MenuItem, TextField } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { PART_KINDS, type PartKind } from '@pelrin/core'
import { endpoints, type DriveSystem, type PartCells } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { PartFields } from './PartFields.tsx'
import { begunPart, cellsIn } from './typedPart.ts'
import { useShowPart } from './useShowPart.ts'

/** A new part, all of it in one form. */
export function AddPartDialog({
  systems,
  onAdded,
  onClose,
}: {
  systems: readonly DriveSystem[]
  onAdded: (id: string) => void
  onClose: () => void
}) {
  const { t } = useTranslation()
  const show = useShowPart()
  const [kind, setKind] = useState<PartKind>('chain')
  const form = useWriteForm({
    access: endpoints.addPart.access,
    schema: endpoints.addPart.body,
    start: begunPart(kind),
    read: (typed: PartCells, id) => ({ id, cells: cellsIn(kind, typed) }),
    send: async (body, { id }) => {
      await show(await ask(endpoints.addPart, { key: id, body }))
      return id
    },
    done: (id) => onAdded(id),
  })
  const choose = (next: PartKind): void => {
    setKind(next)
    form.fields.reset(begunPart(next), { keepDirtyValues: true })
  }
  return (
    <FormDialog form={form} title={t('catalogue.addTitle')} go={t('catalogue.save')} wide dense onClose={onClose}>
      <TextField
        select
        label={t('catalogue.kindField')}
        value={kind}
        onChange={(event) => choose(event.target.value as PartKind)}
        sx={{ my: 1, minWidth: 220, justifySelf: 'start' }}
      >
        {PART_KINDS.map((one) => (
          <MenuItem key={one} value={one}>
            {t(`catalogue.kind.${one}`)}
          </MenuItem>
        ))}
      </TextField>
      <PartFields kind={kind} systems={systems} withStock />
    </FormDialog>
  )
}
