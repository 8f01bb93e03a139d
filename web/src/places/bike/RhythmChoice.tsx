import { Button, Checkbox, FormControlLabel, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { BikeRecord, RuleChange } from '@pelrin/contract'
import { rhythmText } from '../../pieces/rhythmText.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ChangePanel } from '../house-rules/ChangePanel.tsx'

/** How often this customer's chains are looked at, and a way to set it. */
export function RhythmChoice({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const { customer, rhythm } = record
  return (
    <>
      {rhythmText(rhythm, t)}
      {rhythm !== null && ` (${t('rules.forCustomer', { customer: customer.name })})`}{' '}
      <Allowed right="owner">
        <Button size="small" onClick={() => setOpen(true)} sx={{ minHeight: 32, px: 0.75 }}>
          {t('rules.rhythmChoose')}
        </Button>
      </Allowed>
      {open && <RhythmDialog record={record} onClose={() => setOpen(false)} />}
    </>
  )
}

function RhythmDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const { customer, rhythm } = record
  const [typed, setTyped] = useState(rhythm?.days == null ? '' : String(rhythm.days))
  const [eachVisit, setEachVisit] = useState(rhythm?.eachVisit ?? false)
  const [problem, setProblem] = useState<string | null>(null)
  const days = typed.trim() === '' ? null : Number(typed)
  const wrong = days !== null && !(Number.isInteger(days) && days >= 1 && days <= 365)
  const same = days === (rhythm?.days ?? null) && eachVisit === (rhythm?.eachVisit ?? false)
  const change: RuleChange | null = same || wrong ? null : { kind: 'rhythm', customerId: customer.id, days, eachVisit }
  return (
    <SheetDialog
      open
      onClose={onClose}
      title={t('rules.rhythmTitle', { customer: customer.name })}
      maxWidth="sm"
      fullWidth
    >
      <Stack sx={{ gap: 2, pt: 1 }}>
        <TextField
          autoFocus
          label={t('rules.rhythmEvery')}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setProblem(null)
          }}
          error={wrong || problem !== null}
          helperText={wrong ? t('problems.rhythm-range') : (problem ?? t('rules.rhythmNote'))}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
        <FormControlLabel
          control={<Checkbox checked={eachVisit} onChange={(event) => setEachVisit(event.target.checked)} />}
          label={<Typography>{t('rules.rhythmVisit')}</Typography>}
          sx={{ minHeight: 48 }}
        />
        <ChangePanel
          change={change}
          onProblems={(problems) => setProblem(problems['change.days'] ?? null)}
          onDone={onClose}
        />
      </Stack>
    </SheetDialog>
  )
}
