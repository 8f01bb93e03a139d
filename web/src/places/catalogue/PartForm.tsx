import { Button, Stack } from '@mui/material'
import { useFormState } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { endpoints, type CatalogueItem, type DriveSystem, type PartCells } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Refused } from '../../forms/Refused.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { PartFields } from './PartFields.tsx'
import { cellsIn, typedPart } from './typedPart.ts'
import { useShowPart } from './useShowPart.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** What is known of a part, to be changed. */
export function PartForm({ item, systems }: { item: CatalogueItem; systems: readonly DriveSystem[] }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const show = useShowPart()
  const { at, busy, write } = useWrite({ access: endpoints.removePart.access, later: [keys.catalogue, ['bike']] })
  const params = { id: item.id }
  const form = useWriteForm({
    access: endpoints.changePart.access,
    schema: endpoints.changePart.body,
    start: typedPart(item.cells),
    read: (typed: PartCells) => ({ cells: cellsIn(item.kind, typed) }),
    version: item.version,
    send: async (body, { version }) => show(await ask(endpoints.changePart, { params, version, body })),
    newerOf: ({ version, cells }: CatalogueItem) => ({ version, typed: typedPart(cells) }),
    done: (_, typed) => {
      form.fields.reset(typed)
      tell(t('catalogue.saved'))
    },
  })
  const { isDirty } = useFormState({ control: form.fields.control })
  const remove = async (): Promise<void> => {
    const removed = () => ask(endpoints.removePart, { params, version: item.version }).then(() => true)
    if (await write(removed)) void navigate('/catalogue')
  }
  return (
    <FormOf form={form} dense>
      <PartFields kind={item.kind} systems={systems} withStock={false} />
      <Stack direction="row" sx={{ mt: 1, gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Allowed right="stock">
          <Button type="submit" variant="contained" disabled={form.busy || !isDirty}>
            {t('catalogue.save')}
          </Button>
        </Allowed>
        <Allowed right="stock">
          <Button variant="text" color="error" disabled={busy} onClick={() => void remove()}>
            {t('catalogue.remove')}
          </Button>
        </Allowed>
        <RefusedElsewhere form={form} />
        <Refused>{at('')}</Refused>
      </Stack>
    </FormOf>
  )
}
