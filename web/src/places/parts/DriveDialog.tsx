import { Box } from '@mui/material'
import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { endpoints, type BikeParts } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Choice } from '../../forms/Choice.tsx'
import { Flag } from '../../forms/Flag.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { YesNo } from '../../forms/YesNo.tsx'
import { driveIn, typedDrive, type TypedDrive } from './driveFrom.ts'
import { FromElsewhere } from './FromElsewhere.tsx'

/** What is known of a bike's drive, entered in one go. */
export function DriveDialog({ bikeId, parts, onClose }: { bikeId: string; parts: BikeParts; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const form = useWriteForm({
    access: endpoints.changeDrive.access,
    stale: [keys.bike(bikeId), keys.lineUp],
    schema: endpoints.changeDrive.body,
    start: typedDrive(parts.drive),
    read: driveIn,
    send: (body, { version }) => ask(endpoints.changeDrive, { params: { id: bikeId }, version, body }),
    version: parts.version,
    newerOf: (now: Pick<BikeParts, 'version' | 'drive'>) => ({ version: now.version, typed: typedDrive(now.drive) }),
    done: () => {
      tell(t('parts.saved'))
      onClose()
    },
  })
  const take = (taken: Partial<TypedDrive>): void => form.fields.reset({ ...form.fields.getValues(), ...taken })
  const tandem = useWatch({ control: form.fields.control, name: 'tandem' })
  const derailleur = parts.drive.type === 'derailleur'
  const unknown = ['', t('parts.systemNone')] as const
  return (
    <FormDialog form={form} title={t('parts.driveTitle')} go={t('parts.save')} wide dense onClose={onClose}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr 1fr' },
          columnGap: 2,
          rowGap: 1.75,
          alignItems: 'start',
        }}
      >
        <FromElsewhere systems={parts.systems} bikeId={bikeId} onTake={take} />
        <Line name="fronts" label={t('parts.fronts')} of="teeth" autoFocus />
        <Line name="sprockets" label={t('parts.sprockets')} of="teeth" sx={{ gridColumn: { sm: 'span 2' } }} />
        <Line name="speeds" label={t('parts.speedsField')} of="whole" />
        <Choice
          name="systemId"
          label={t('parts.system')}
          options={[unknown, ...parts.systems.map(({ id, name }) => [id, name] as const)]}
        />
        <Line name="level" label={t('parts.level')} />
        {derailleur ? (
          <>
            <Line name="chainstayMm" label={t('parts.chainstay')} of="number" />
            <Choice
              name="suspension"
              label={t('parts.suspension')}
              options={(['rigid', 'hardtail', 'full'] as const).map((one) => [one, t(`parts.suspensionOf.${one}`)])}
            />
            <Line name="growthMm" label={t('parts.growth')} of="number" />
            <Line name="capacityTeeth" label={t('parts.capacity')} of="whole" />
            <Line name="largestSprocketTeeth" label={t('parts.largestSprocket')} of="whole" />
            <Line name="pulleys" label={t('parts.pulleys')} of="teeth" />
            <Line name="statedAdd" label={t('parts.stated')} of="whole" />
            <Flag name="pulleysCounted" label={t('parts.pulleysCounted')} />
          </>
        ) : (
          <>
            <Choice
              name="ringWidth"
              label={t('parts.ringWidth')}
              options={[unknown, ['3/32', '3/32″'], ['1/8', '1/8″']]}
            />
            <Line name="axleMm.from" label={t('parts.axleFrom')} of="number" />
            <Line name="axleMm.to" label={t('parts.axleTo')} of="number" />
          </>
        )}
        <Choice
          name="guide"
          label={t('parts.guide')}
          options={[
            unknown,
            ...(['front-derailleur', 'chain-guide', 'none'] as const).map(
              (one) => [one, t(`parts.guideOf.${one}`)] as const,
            ),
          ]}
        />
        {(derailleur
          ? (['discBrake', 'wideNarrow', 'clutch', 'cageLock'] as const)
          : (['discBrake', 'wideNarrow'] as const)
        ).map((name) => (
          <YesNo key={name} name={name} label={t(`parts.${name}`)} />
        ))}
        <Flag name="tandem" label={t('parts.tandem')} />
        {tandem && (
          <>
            <Line name="timing.teeth" label={t('parts.timingTeeth')} of="teeth" />
            <Line name="timing.fromMm" label={t('parts.timingFrom')} of="number" />
            <Line name="timing.toMm" label={t('parts.timingTo')} of="number" />
          </>
        )}
        <Flag name="motor" label={t('parts.motor')} />
        <Flag name="takenOff" label={t('parts.takenOff')} />
      </Box>
    </FormDialog>
  )
}
