import { Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { POT_RECIPES, type PotRecipe } from '@pelrin/core'
import { endpoints, type BikeCare } from '@pelrin/contract'
import { REMINDER_LANGUAGES, type ReminderLanguage } from '@pelrin/contract/messages'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { Choice } from '../../forms/Choice.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { asTyped, choiceIn, numberWanted, textIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { weekdayName } from '../../messages/format.ts'

const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const
/** Monday is 1. */
const nameOf = (weekday: number): string => weekdayName(`2024-01-0${weekday}`)

/** What is said of a bike's care, as it is typed. */
interface TypedPlan {
  own: { km: string; days: string }
  recipe: PotRecipe | ''
  washDays: string
  careAt: 'home' | 'workshop' | ''
  weekday: string
  reminded: ReminderLanguage | 'none'
}

/** A bike's own interval and recipe, and its customer's habit. */
export function CarePlanDialog({
  bikeId,
  care,
  customer: name,
  onClose,
}: {
  bikeId: string
  care: BikeCare
  customer: string
  onClose: () => void
}) {
  const { t } = useTranslation()
  const { customer } = care
  const before: TypedPlan = {
    own: { km: asTyped(care.own?.km), days: asTyped(care.own?.days) },
    recipe: care.ownRecipe ?? '',
    washDays: asTyped(care.wash.ownDays),
    careAt: customer.careAt ?? '',
    weekday: asTyped(customer.goodWeekday),
    reminded: customer.optedOut ? 'none' : customer.language,
  }
  const form = useWriteForm({
    access: endpoints.setCareInterval.access,
    ...staleOfBike(bikeId),
    schema: endpoints.setCareInterval.body,
    start: before,
    read: ({ own: { km, days }, recipe, washDays }: TypedPlan) => ({
      recipe: choiceIn(recipe),
      washDays: textIn(washDays) === null ? null : numberWanted(washDays),
      own: textIn(km) === null && textIn(days) === null ? null : { km: numberWanted(km), days: numberWanted(days) },
    }),
    send: async ({ own, recipe, washDays }, _, { careAt, weekday, reminded }) => {
      let { version } = customer
      if (reminded !== before.reminded) {
        const body = reminded === 'none' ? { optedOut: true } : { optedOut: false, language: reminded }
        version = (await ask(endpoints.setMessaging, { params: { id: customer.id }, version, body })).version
      }
      const params = { id: bikeId }
      if (
        own?.km !== care.own?.km ||
        own?.days !== care.own?.days ||
        recipe !== care.ownRecipe ||
        washDays !== care.wash.ownDays
      )
        await ask(endpoints.setCareInterval, { params, version: care.bikeVersion, body: { own, recipe, washDays } })
      if (careAt !== before.careAt || weekday !== before.weekday) {
        const body = { careAt: choiceIn(careAt), goodWeekday: weekday === '' ? null : Number(weekday) }
        await ask(endpoints.setCareHabit, { params, version, body })
      }
    },
    done: onClose,
  })
  const languages: readonly (ReminderLanguage | 'none')[] = [...REMINDER_LANGUAGES, 'none']
  return (
    <FormDialog form={form} title={t('caring.planTitle')} go={t('app.save')} onClose={onClose}>
      <Typography color="textSecondary">{t('caring.planOwn')}</Typography>
      <Stack direction="row" sx={{ gap: 2, '& > *': { flex: 1 } }}>
        <Line name="own.km" label={t('caring.km')} of="number" autoFocus />
        <Line name="own.days" label={t('caring.days')} of="whole" />
      </Stack>
      <Line
        name="washDays"
        label={t('caring.washDays')}
        of="whole"
        hint={care.wash.shopDays === 0 ? t('caring.washNone') : t('caring.washHouse', { count: care.wash.shopDays })}
      />
      <Choice
        name="recipe"
        label={t('caring.recipe')}
        options={[['', t('caring.recipeHouse')], ...POT_RECIPES.map((one) => [one, t(`pot.recipe.${one}`)] as const)]}
      />
      <Typography color="textSecondary">{t('caring.habitNote', { name })}</Typography>
      <Stack direction="row" sx={{ gap: 2, '& > *': { flex: 1 } }}>
        <Choice
          name="careAt"
          label={t('caring.habit')}
          options={[
            ['', t('caring.habitOf.none')],
            ['home', t('caring.habitOf.home')],
            ['workshop', t('caring.habitOf.workshop')],
          ]}
        />
        <Choice
          name="weekday"
          label={t('caring.weekday')}
          options={[['', t('caring.anyDay')], ...WEEKDAYS.map((one) => [String(one), nameOf(one)] as const)]}
        />
      </Stack>
      <Choice
        name="reminded"
        label={t('reminding.reminded')}
        options={languages.map((one) => [
          one,
          one === 'none'
            ? t('reminding.notReminded')
            : t('reminding.remindedIn', { language: t(`reminding.language.${one}`) }),
        ])}
      />
    </FormDialog>
  )
}
