import { Stack, Typography } from '@mui/material'
import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { chainSpeeds, speedsMatch } from '@pelrin/core'
import { endpoints, type BikeParts, type JointModel } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Choice } from '../../forms/Choice.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { maybeIn, maybeTyped } from '../../forms/maybe.ts'
import { Pick } from '../../forms/Pick.tsx'
import { asTyped, choiceIn, numberIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import type { JointLook } from '../../pieces/JointDrawing.tsx'
import { JointLooks } from './JointLooks.tsx'

/** What of a joint can be counted: how often it was closed, and how it clicked. */
const counted = (look: JointLook | null): boolean => look === 'link' || look === 'clip'

/** What is the chain on this bike closed with? Told by drawings; then what more is known of it. */
export function JointDialog({
  bikeId,
  parts: { present, drive },
  joints,
  onClose,
}: {
  bikeId: string
  parts: BikeParts
  joints: readonly JointModel[]
  onClose: () => void
}) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const start = {
    kind: present?.kind ?? null,
    partId: present?.model?.id ?? '',
    closings: asTyped(present?.closings),
    firm: maybeTyped(present?.firm ?? null),
  }
  const form = useWriteForm({
    access: endpoints.seeJoint.access,
    ...staleOfBike(bikeId),
    schema: endpoints.seeJoint.body,
    start,
    read: ({ kind, partId, closings, firm }: typeof start, id) => ({
      id,
      kind: kind!,
      partId: choiceIn(partId),
      closings: counted(kind) ? numberIn(closings) : null,
      firm: counted(kind) ? maybeIn(firm) : null,
    }),
    send: (body, { id }) => ask(endpoints.seeJoint, { params: { id: bikeId }, key: id, body }),
    done: () => {
      tell(t('parts.saved'))
      onClose()
    },
  })
  const look = useWatch({ control: form.fields.control, name: 'kind' })
  const speeds = chainSpeeds(drive)
  const candidates = joints
    .filter(({ kind, speeds: made }) => kind === look && speedsMatch(made, speeds))
    .map(({ id, maker, name }) => [id, `${maker} ${name}`] as const)
    .sort(([, a], [, b]) => (a < b ? -1 : 1))
  return (
    <FormDialog
      form={form}
      title={t('parts.joint.title')}
      go={t('parts.save')}
      ready={look !== null}
      wide
      onClose={onClose}
    >
      <Typography sx={{ mb: 0.5 }}>{t('parts.joint.lead')}</Typography>
      <JointLooks
        look={look}
        onLook={(next) => {
          form.fields.setValue('kind', next)
          form.fields.setValue('partId', '')
        }}
      />
      {look !== null && (
        <Typography sx={{ mt: 0.5 }}>
          <b>{t('parts.joint.opens')}</b> {t(`parts.joint.open.${look}`)}
        </Typography>
      )}
      {look !== null && look !== 'riveted' && (
        <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 2, mt: 1, alignItems: { sm: 'flex-start' } }}>
          <Choice
            name="partId"
            label={t('parts.joint.which')}
            options={[['', t('app.unknown')], ...candidates]}
            sx={{ minWidth: 230 }}
          />
          {counted(look) && (
            <>
              <Line
                name="closings"
                label={t('parts.joint.closings')}
                of="whole"
                placeholder={t('app.unknown')}
                sx={{ width: 190 }}
              />
              <Pick
                name="firm"
                label={t('parts.joint.click')}
                options={[
                  ['yes', t('parts.joint.firm')],
                  ['no', t('parts.joint.weak')],
                ]}
                none=""
              />
            </>
          )}
        </Stack>
      )}
    </FormDialog>
  )
}
