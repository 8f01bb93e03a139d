import { Typography } from '@mui/material'
import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { addingBack, CLICKS, mendSteps } from '@pelrin/core'
import { endpoints, type AddPitchesBack, type BikeMends, type Mend } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Choice } from '../../forms/Choice.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { asTyped, numberWanted } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { StepsByPart } from '../../pieces/StepsByPart.tsx'
import { useLinks } from '../../pieces/useLinks.ts'

/** A link that is of no stock. */
const OTHER = 'other'

/** Pitches go back into a chain that was shortened when it was mended: how many, from what, closed by what, and how that is done. */
export function AddBackDialog({
  bikeId,
  known,
  chain,
  mend,
  onClose,
}: {
  bikeId: string
  known: BikeMends
  chain: NonNullable<BikeMends['chain']>
  mend: Mend
  onClose: () => void
}) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const links = useLinks(bikeId, true)
  const form = useWriteForm({
    access: endpoints.addPitchesBack.access,
    ...staleOfBike(bikeId),
    schema: endpoints.addPitchesBack.body,
    start: {
      add: asTyped(mend.option?.lost),
      from: chain.offcut > 0 ? 'offcut' : 'same-model',
      by: 'link',
      click: '',
      linkPartId: '',
    },
    read: ({ add, from, by, click, linkPartId }, id) => ({
      id,
      fittingId: chain.fittingId,
      add: numberWanted(add),
      from: from as AddPitchesBack['from'],
      by: by as AddPitchesBack['by'],
      click: by === 'link' ? (CLICKS.find((one) => one === click) ?? null) : null,
      byFeel: false,
      linkPartId: by === 'pin' || linkPartId === OTHER ? null : linkPartId || (links[0]?.id ?? null),
    }),
    send: (body, { id }) => ask(endpoints.addPitchesBack, { params: { id: bikeId, mendId: mend.id }, key: id, body }),
    done: (after) => {
      tell(t('mends.addedNow', { pitches: after.chain?.pitches ?? 0 }))
      onClose()
    },
  })
  const { add, by } = useWatch({ control: form.fields.control })
  const count = numberWanted(add ?? '')
  const fits = Number.isInteger(count) && count >= 2 && count % 2 === 0 && chain.pitches !== null
  const added = fits
    ? addingBack({
        pitches: chain.pitches ?? 0,
        add: count,
        by: by === 'pin' ? 'pin' : 'link',
        linked: chain.joint?.kind === 'link',
        ownLink: chain.ownLink,
      })
    : null
  return (
    <FormDialog form={form} title={t('mends.addTitle')} go={t('mends.addGo')} onClose={onClose}>
      <Line name="add" label={t('mends.add')} of="whole" autoFocus hint={t('mends.addHint')} />
      <Choice
        name="from"
        label={t('mends.from')}
        options={[
          ...(chain.offcut > 0 ? [['offcut', t('mends.fromOffcut', { count: chain.offcut })] as const] : []),
          ['same-model', t('mends.fromModel')],
        ]}
      />
      <Choice
        name="by"
        label={t('mends.by')}
        options={[
          ['link', t('mends.byLink')],
          ['pin', t('mends.byPin')],
        ]}
      />
      {added && (
        <Typography role="status">
          {t(`mends.piece.${added.by}`, { count: added.piece, left: added.left })}{' '}
          {t(added.ownAgain ? 'mends.ownAgain' : 'mends.newJoints', { count: added.newJoints })}
        </Typography>
      )}
      {by === 'link' && (
        <>
          <Choice
            name="linkPartId"
            label={t('closing.which')}
            options={[
              ...links.slice(0, 5).map(
                ({ id, maker, name, stock }, i) =>
                  // The first is taken where nobody chooses another.
                  [i === 0 ? '' : id, `${maker} ${name}, ${t('closing.inStock', { count: stock })}`] as const,
              ),
              [OTHER, t('closing.other')],
            ]}
          />
          <Choice
            name="click"
            label={t('closing.how')}
            options={CLICKS.map((one) => [one, t(`jobs.clickOf.${one}`)] as const)}
          />
        </>
      )}
      {added && known.handling && (
        <StepsByPart
          steps={mendSteps({
            ...{ handling: known.handling, care: known.care, position: 'upright', option: null },
            ...{ added, roadside: false },
          })}
        />
      )}
    </FormDialog>
  )
}
