import { Alert, TextField } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { problemText } from '../../messages/said.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { HowTaken } from './HowTaken.tsx'
import { OdometerField } from './OdometerField.tsx'
import type { Bench } from './useMeasureBench.ts'

/** The odometer, why it is corrected, how it was taken, and saving it. */
export function BenchFoot(bench: Bench) {
  const { t } = useTranslation()
  const { record, corrects, session, draft, change, clearRefusal, instrument, assumed, unit, odometer, odometerInput } =
    bench
  const { reasonInput, complete, save, saving, refused, wrongIn, elsewhere, isNew } = bench
  return (
    <>
      <OdometerField
        odometer={draft.odometer}
        reading={odometer}
        last={corrects ? null : record.lastOdometer}
        unit={unit}
        error={wrongIn('odometer.typed')}
        inputRef={odometerInput}
        onChange={(changed) => {
          clearRefusal()
          change({ odometer: changed })
        }}
        onEnter={() => (corrects ? (complete(), reasonInput.current?.focus()) : save())}
        onAnswer={(answered) => {
          change({ odometer: answered })
          save(answered)
        }}
      />
      {corrects && (
        <TextField
          inputRef={reasonInput}
          label={t('bike.reason')}
          value={draft.reason}
          onChange={(event) => change({ reason: event.target.value })}
          helperText={wrongIn('reason') ? problemText(t, wrongIn('reason') ?? '') : t('bike.correctNote')}
          slotProps={{ htmlInput: { maxLength: 200 } }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return
            event.preventDefault()
            save()
          }}
        />
      )}
      <HowTaken
        draft={draft}
        instrument={instrument}
        people={session.people}
        writer={session.person}
        preloadKg={assumed.measuring.preloadKg}
        isNew={isNew}
        onChange={change}
      />
      {refused && (elsewhere.length > 0 || refused.fields === undefined) && (
        <Alert severity="error" icon={false}>
          {elsewhere.length > 0
            ? elsewhere.map((field) => field.detail).join(' ')
            : problemText(t, refused.code, { requestId: refused.requestId })}
        </Alert>
      )}
      <KeyButton
        cap="Enter"
        variant="contained"
        size="large"
        disabled={saving}
        onClick={() => save()}
        sx={{ minHeight: 56 }}
      >
        {saving ? t('measure.saving') : t('measure.save')}
      </KeyButton>
    </>
  )
}
