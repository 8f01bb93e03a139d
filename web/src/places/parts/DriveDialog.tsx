import { Box, Button, Checkbox, FormControlLabel, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type BikeParts, type ChangeDrive } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite, wrongAt } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { typedTeeth } from '../../messages/typedTeeth.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { fieldsOfDrive, type DriveFields } from './driveFrom.ts'
import { FromElsewhere } from './FromElsewhere.tsx'

const UNKNOWN = ''
const NUMBERS = ['chainstayMm', 'growthMm', 'statedAdd', 'capacityTeeth', 'largestSprocketTeeth'] as const
type NumberField = (typeof NUMBERS)[number]
const LABELS: Readonly<Record<NumberField, string>> = {
  chainstayMm: 'parts.chainstay',
  growthMm: 'parts.growth',
  statedAdd: 'parts.stated',
  capacityTeeth: 'parts.capacity',
  largestSprocketTeeth: 'parts.largestSprocket',
}

/** What is known of a bike's drive, entered in one go; nothing typed is lost by a refusal. */
export function DriveDialog({ bikeId, parts, onClose }: { bikeId: string; parts: BikeParts; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const { drive } = parts
  const [fields, setFields] = useState<DriveFields>(() => fieldsOfDrive(drive))
  const [tandem, setTandem] = useState(drive.timing !== null)
  const [flags, setFlags] = useState({
    motor: drive.motor,
    takenOff: drive.takenOff,
    pulleysCounted: drive.pulleysCounted,
  })
  const [maybe, setMaybe] = useState({
    wideNarrow: drive.wideNarrow,
    clutch: drive.clutch,
    cageLock: drive.cageLock,
    discBrake: drive.discBrake,
  })
  const { wrong: refused, setWrong, busy, write } = useWrite({ stale: [keys.bike(bikeId), keys.lineUp] })
  /** By field; a list's sentence stands at the list. */
  const wrong: Readonly<Record<string, string>> = !refused
    ? {}
    : Object.keys(refused.fields).length === 0
      ? { '': refused.sentence }
      : Object.fromEntries(Object.entries(refused.fields).map(([path, said]) => [path.split('.')[0]!, said]))
  const field = (name: string): string => fields[name] ?? ''
  const take = (taken: DriveFields): void => {
    setFields({ ...fields, ...taken })
    setWrong(null)
  }
  const set = (name: string, value: string): void => take({ [name]: value })
  const numberOf = (name: string): number | null =>
    field(name).trim() === '' ? null : (typedNumber(field(name)) ?? NaN)
  /** What is no number at all: it would not even arrive. */
  const notNumbers = (): Record<string, string> => ({
    ...Object.fromEntries(
      ['speeds', 'axleFrom', 'axleTo', 'timingFrom', 'timingTo', ...NUMBERS]
        .filter((name) => Number.isNaN(numberOf(name)))
        .map((name) => [
          name === 'axleFrom' ? 'axleMm' : name.startsWith('timing') ? 'timing' : name,
          t('problems.number-malformed'),
        ]),
    ),
    ...Object.fromEntries(
      ['fronts', 'sprockets', 'pulleys', 'timingTeeth']
        .filter((name) => typedTeeth(field(name)).some(Number.isNaN))
        .map((name) => [name === 'timingTeeth' ? 'timing' : name, t('problems.teeth-malformed')]),
    ),
  })
  const save = async (): Promise<void> => {
    const malformed = notNumbers()
    if (Object.keys(malformed).length > 0) {
      setWrong(wrongAt(malformed))
      return
    }
    // One end alone is an axle that cannot be moved.
    const from = numberOf('axleFrom') ?? numberOf('axleTo')
    const to = numberOf('axleTo') ?? from
    const [timingFrom, timingTo] = [numberOf('timingFrom'), numberOf('timingTo') ?? numberOf('timingFrom')]
    if (tandem && (timingFrom === null || timingTo === null)) {
      setWrong(wrongAt({ timing: t('problems.timing-short') }))
      return
    }
    const change: ChangeDrive = {
      speeds: Number(field('speeds')),
      fronts: typedTeeth(field('fronts')),
      sprockets: typedTeeth(field('sprockets')),
      systemId: field('systemId') === UNKNOWN ? null : field('systemId'),
      level: field('level').trim() === '' ? null : field('level').trim(),
      ringWidth: field('ringWidth') === UNKNOWN ? null : (field('ringWidth') as '3/32' | '1/8'),
      suspension: field('suspension') as BikeParts['drive']['suspension'],
      pulleys: field('pulleys').trim() === '' ? null : typedTeeth(field('pulleys')),
      axleMm: from === null || to === null ? null : { from, to },
      timing:
        tandem && timingFrom !== null && timingTo !== null
          ? { teeth: typedTeeth(field('timingTeeth')), fromMm: timingFrom, toMm: timingTo }
          : null,
      ...Object.fromEntries(NUMBERS.map((name) => [name, numberOf(name)])),
      ...flags,
      ...maybe,
      guide: field('guide') === UNKNOWN ? null : (field('guide') as 'none'),
    }
    const asking = { params: { id: bikeId }, version: parts.version, body: change }
    if (!(await write(() => ask(endpoints.changeDrive, asking).then(() => true)))) return
    tell(t('parts.saved'))
    onClose()
  }
  const input = (name: string, label: string, at = name) => (
    <TextField
      size="small"
      label={t(label)}
      value={field(name)}
      onChange={(event) => set(name, event.target.value)}
      error={wrong[at] !== undefined}
      helperText={wrong[at]}
    />
  )
  const derailleur = drive.type === 'derailleur'
  return (
    <SheetDialog open onClose={onClose} title={t('parts.driveTitle')} maxWidth="md" fullWidth>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr 1fr' },
            gap: 2,
            pt: 1,
            alignItems: 'start',
          }}
        >
          <FromElsewhere systems={parts.systems} bikeId={bikeId} onTake={take} />
          {input('fronts', 'parts.fronts')}
          <Box sx={{ gridColumn: { sm: 'span 2' }, display: 'grid' }}>{input('sprockets', 'parts.sprockets')}</Box>
          {input('speeds', 'parts.speedsField')}
          <Choice
            label={t('parts.system')}
            value={field('systemId')}
            onChange={(value) => set('systemId', value)}
            options={[
              [UNKNOWN, t('parts.systemNone')],
              ...parts.systems.map(({ id, name }): [string, string] => [id, name]),
            ]}
          />
          {input('level', 'parts.level')}
          {derailleur ? (
            <>
              {input('chainstayMm', LABELS.chainstayMm)}
              <Choice
                label={t('parts.suspension')}
                value={field('suspension')}
                onChange={(value) => set('suspension', value)}
                options={(['rigid', 'hardtail', 'full'] as const).map((one) => [one, t(`parts.suspensionOf.${one}`)])}
              />
              {input('growthMm', LABELS.growthMm)}
              {input('capacityTeeth', LABELS.capacityTeeth)}
              {input('largestSprocketTeeth', LABELS.largestSprocketTeeth)}
              {input('pulleys', 'parts.pulleys')}
              {input('statedAdd', LABELS.statedAdd)}
              <Flag
                label={t('parts.pulleysCounted')}
                on={flags.pulleysCounted}
                onChange={(pulleysCounted) => setFlags({ ...flags, pulleysCounted })}
              />
            </>
          ) : (
            <>
              <Choice
                label={t('parts.ringWidth')}
                value={field('ringWidth')}
                onChange={(value) => set('ringWidth', value)}
                options={[
                  [UNKNOWN, t('parts.systemNone')],
                  ['3/32', '3/32″'],
                  ['1/8', '1/8″'],
                ]}
              />
              {input('axleFrom', 'parts.axleFrom', 'axleMm')}
              {input('axleTo', 'parts.axleTo')}
            </>
          )}
          <Choice
            label={t('parts.guide')}
            value={field('guide')}
            onChange={(value) => set('guide', value)}
            options={[
              [UNKNOWN, t('parts.systemNone')],
              ...(['front-derailleur', 'chain-guide', 'none'] as const).map((one): [string, string] => [
                one,
                t(`parts.guideOf.${one}`),
              ]),
            ]}
          />
          {(derailleur
            ? (['discBrake', 'wideNarrow', 'clutch', 'cageLock'] as const)
            : (['discBrake', 'wideNarrow'] as const)
          ).map((name) => (
            <Choice
              key={name}
              label={t(`parts.${name}`)}
              value={maybe[name] === null ? UNKNOWN : maybe[name] ? 'yes' : 'no'}
              onChange={(value) => setMaybe({ ...maybe, [name]: value === UNKNOWN ? null : value === 'yes' })}
              options={[
                [UNKNOWN, t('parts.systemNone')],
                ['yes', t('catalogue.yes')],
                ['no', t('catalogue.no')],
              ]}
            />
          ))}
          <Flag label={t('parts.tandem')} on={tandem} onChange={setTandem} />
          {tandem && (
            <>
              {input('timingTeeth', 'parts.timingTeeth', 'timing')}
              {input('timingFrom', 'parts.timingFrom')}
              {input('timingTo', 'parts.timingTo')}
            </>
          )}
          <Flag label={t('parts.motor')} on={flags.motor} onChange={(motor) => setFlags({ ...flags, motor })} />
          <Flag
            label={t('parts.takenOff')}
            on={flags.takenOff}
            onChange={(takenOff) => setFlags({ ...flags, takenOff })}
          />
        </Box>
        <Stack direction="row" sx={{ justifyContent: 'flex-end', alignItems: 'center', gap: 2, pt: 2 }}>
          {wrong[''] !== undefined && (
            <Typography role="alert" color="error">
              {wrong['']}
            </Typography>
          )}
          <Button type="submit" variant="contained" disabled={busy} sx={{ minHeight: 48, px: 4 }}>
            {t('parts.save')}
          </Button>
        </Stack>
      </Box>
    </SheetDialog>
  )
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly (readonly [string, string])[]
  onChange: (value: string) => void
}) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      {options.map(([key, name]) => (
        <MenuItem key={key} value={key} sx={{ minHeight: 48 }}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  )
}

function Flag({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <FormControlLabel
      control={<Checkbox checked={on} onChange={(event) => onChange(event.target.checked)} />}
      label={label}
      sx={{ minHeight: 48 }}
    />
  )
}
