import { Button } from '@mui/material'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { LedgerForm } from './LedgerForm.tsx'
import { ofLedger } from './useLedgerWrite.ts'

type Answered = 'restarted' | 'as-it-is'

/** Writes down an odometer value, what the customer says of a year, or what a chain had run before it came. */
export function ValueForm({
  bikeId,
  unit,
  kind,
}: {
  bikeId: string
  unit: 'km' | 'mi'
  kind: 'odometer' | 'statement' | 'chain-start'
}) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  /** What is doubted of an odometer: asked back until it is answered, or typed otherwise. */
  const [doubt, setDoubt] = useState<{ of: string; typed: string } | null>(null)
  const form = useWriteForm({
    access: endpoints.recordOdometer.access,
    stale: ofLedger(bikeId),
    schema: kind === 'odometer' ? endpoints.recordOdometer.body : undefined,
    start: { typed: '', lower: '' },
    read: ({ typed, lower }: { typed: string; lower: Answered | '' }, id) => ({
      id,
      occurredAt: new Date().toISOString(),
      typed,
      unit,
      ...(lower === '' ? {} : { lower }),
    }),
    send: (body, { id }, { lower }) => {
      const asking = { params: { id: bikeId }, key: `${id}${lower}` }
      return kind === 'odometer'
        ? ask(endpoints.recordOdometer, { ...asking, body })
        : ask(endpoints.recordStatement, { ...asking, body: { ...body, of: kind === 'statement' ? 'year' : kind } })
    },
    asked: (code) => {
      if (code === 'odometer-lower' || code === 'odometer-much')
        setDoubt({ of: code, typed: form.fields.getValues('typed') })
      form.fields.setValue('lower', '')
      return false
    },
    done: () => {
      form.fields.reset()
      setDoubt(null)
      tell(t('distanceOf.saved'))
    },
  })
  const typed = useWatch({ control: form.fields.control, name: 'typed' })
  const doubted = doubt?.typed === typed
  const sayIt = (one: Answered): void => {
    form.fields.setValue('lower', one)
    form.submit()
  }
  return (
    <LedgerForm form={form} goes={!doubted}>
      <Line name="typed" label={`${t(`distanceOf.${kind}New`)}, ${unit}`} of="number" sx={{ minWidth: 300 }} />
      {doubted && (
        <>
          {doubt.of === 'odometer-lower' && (
            <Button variant="outlined" onClick={() => sayIt('restarted')}>
              {t('distanceOf.restarted')}
            </Button>
          )}
          <Button variant="outlined" onClick={() => sayIt('as-it-is')}>
            {t('distanceOf.asItIs')}
          </Button>
        </>
      )}
    </LedgerForm>
  )
}
