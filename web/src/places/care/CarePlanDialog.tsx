import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import dayjs from 'dayjs'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type BikeCare } from '@pelrin/contract'
import { REMINDER_LANGUAGES, type ReminderLanguage } from '@pelrin/contract/messages'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { locale } from '../../messages/format.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'

const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const
/** Monday is 1. */
const nameOf = (weekday: number): string =>
  new Intl.DateTimeFormat(locale, { weekday: 'long' }).format(
    dayjs('2024-01-01')
      .add(weekday - 1, 'day')
      .toDate(),
  )

/** A bike's own interval, and its customer's habit. */
export function CarePlanDialog({
  bikeId,
  care,
  customer,
  onClose,
}: {
  bikeId: string
  care: BikeCare
  customer: string
  onClose: () => void
}) {
  const { t } = useTranslation()
  const { wrong, busy, write, field } = useBikeWrite(bikeId)
  const [km, setKm] = useState(care.own === null ? '' : String(care.own.km))
  const [days, setDays] = useState(care.own === null ? '' : String(care.own.days))
  const [careAt, setCareAt] = useState(care.customer.careAt)
  const [weekday, setWeekday] = useState(care.customer.goodWeekday)
  const [reminded, setReminded] = useState<ReminderLanguage | 'none'>(
    care.customer.optedOut ? 'none' : care.customer.language,
  )
  const save = async (): Promise<void> => {
    const own =
      km.trim() === '' && days.trim() === '' ? null : { km: typedNumber(km) ?? 0, days: typedNumber(days) ?? 0 }
    const params = { id: bikeId }
    const sameInterval = own?.km === care.own?.km && own?.days === care.own?.days
    const sameHabit = careAt === care.customer.careAt && weekday === care.customer.goodWeekday
    const wasReminded = care.customer.optedOut ? 'none' : care.customer.language
    const done = await write(async () => {
      let version = care.customer.version
      if (reminded !== wasReminded) {
        const messaging = await ask(endpoints.setMessaging, {
          params: { id: care.customer.id },
          version,
          body: reminded === 'none' ? { optedOut: true } : { optedOut: false, language: reminded },
        })
        version = messaging.version
      }
      if (!sameInterval) await ask(endpoints.setCareInterval, { params, version: care.bikeVersion, body: { own } })
      if (!sameHabit)
        await ask(endpoints.setCareHabit, {
          params,
          version,
          body: { careAt, goodWeekday: weekday },
        })
      return true
    })
    if (done) onClose()
  }
  return (
    <SheetDialog open onClose={onClose} title={t('caring.planTitle')} maxWidth="sm" fullWidth>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
        sx={{ display: 'grid', gap: 1, pt: 1 }}
      >
        <Typography color="textSecondary">{t('caring.planOwn')}</Typography>
        <Stack direction="row" sx={{ gap: 2 }}>
          <TextField
            autoFocus
            fullWidth
            label={t('caring.km')}
            value={km}
            onChange={(event) => setKm(event.target.value)}
            slotProps={{ htmlInput: { inputMode: 'decimal' } }}
            {...field('own.km')}
          />
          <TextField
            fullWidth
            label={t('caring.days')}
            value={days}
            onChange={(event) => setDays(event.target.value)}
            slotProps={{ htmlInput: { inputMode: 'numeric' } }}
            {...field('own.days')}
          />
        </Stack>
        <Typography color="textSecondary">{t('caring.habitNote', { name: customer })}</Typography>
        <Stack direction="row" sx={{ gap: 2 }}>
          <TextField
            select
            fullWidth
            label={t('caring.habit')}
            value={careAt ?? 'none'}
            onChange={(event) => {
              const at = event.target.value
              setCareAt(at === 'home' || at === 'workshop' ? at : null)
            }}
          >
            {(['none', 'home', 'workshop'] as const).map((one) => (
              <MenuItem key={one} value={one}>
                {t(`caring.habitOf.${one}`)}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            fullWidth
            label={t('caring.weekday')}
            value={weekday ?? 0}
            onChange={(event) => setWeekday(Number(event.target.value) || null)}
          >
            <MenuItem value={0}>{t('caring.anyDay')}</MenuItem>
            {WEEKDAYS.map((one) => (
              <MenuItem key={one} value={one}>
                {nameOf(one)}
              </MenuItem>
            ))}
          </TextField>
        </Stack>
        <TextField
          select
          label={t('reminding.reminded')}
          value={reminded}
          onChange={(event) => {
            const one = event.target.value
            setReminded(REMINDER_LANGUAGES.find((language) => language === one) ?? 'none')
          }}
        >
          {[...REMINDER_LANGUAGES, 'none' as const].map((one) => (
            <MenuItem key={one} value={one}>
              {one === 'none'
                ? t('reminding.notReminded')
                : t('reminding.remindedIn', { language: t(`reminding.language.${one}`) })}
            </MenuItem>
          ))}
        </TextField>
        {wrong !== null && Object.keys(wrong.fields).length === 0 && (
          <Typography role="alert" color="error">
            {wrong.sentence}
          </Typography>
        )}
        <Button type="submit" variant="contained" disabled={busy} sx={{ justifySelf: 'end', mt: 1 }}>
          {t('app.save')}
        </Button>
      </Box>
    </SheetDialog>
  )
}
