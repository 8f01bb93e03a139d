import { Box, Typography } from '@mui/material'
import { CARE_KINDS } from '@pelrin/core'
import { useFormContext, useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { SHOP_LOCALES } from '@pelrin/contract'
import { Choice } from '../../forms/Choice.tsx'
import { Flags } from '../../forms/Flags.tsx'
import { Line } from '../../forms/Line.tsx'
import { Suggested } from '../../forms/Suggested.tsx'
import { weekdayName } from '../../messages/format.ts'
import { codeOf } from './typedShop.ts'
import { useFollows } from './useFollows.ts'

const ZONES = Intl.supportedValuesOf('timeZone')
/** Money of hundredths: what is typed and reckoned here goes by two decimals. */
const CURRENCIES = Intl.supportedValuesOf('currency').filter(
  (code) =>
    new Intl.NumberFormat('en', { style: 'currency', currency: code }).resolvedOptions().maximumFractionDigits === 2,
)
const pairs = { display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, columnGap: 1.5, rowGap: 0.75 }

/** What a shop says of itself, field by field. */
export function ShopFields({ at = '', autoFocus = false }: { at?: string; autoFocus?: boolean }) {
  const { t } = useTranslation()
  useFollows(`${at}name`, `${at}code`, codeOf)
  const care = useWatch({ control: useFormContext().control, name: `${at}careWays` }) as readonly string[]
  const regions = new Intl.DisplayNames('en', { type: 'region' })
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }}>
      <Box sx={pairs}>
        <Line name={`${at}name`} label={t('shop.name')} autoFocus={autoFocus} longest={80} />
        <Line name={`${at}code`} label={t('shop.code')} hint={t('shop.codeHint')} longest={40} />
        <Suggested name={`${at}timeZone`} label={t('shop.timeZone')} options={ZONES} />
        <Suggested name={`${at}currency`} label={t('shop.currency')} options={CURRENCIES} />
        <Choice
          name={`${at}locale`}
          label={t('shop.locale')}
          options={SHOP_LOCALES.map((one) => [one, `${regions.of(one.slice(3)) ?? one}: ${exampleOf(one)}`])}
        />
        <Line
          name={`${at}stands`}
          label={t('shop.stands')}
          hint={at === '' ? t('shop.standsHint') : undefined}
          of="whole"
        />
        <Choice
          name={`${at}distanceUnit`}
          label={t('shop.distanceUnit')}
          options={(['km', 'mi'] as const).map((one) => [one, t(`shop.in.${one}`)])}
        />
        <Choice
          name={`${at}temperatureUnit`}
          label={t('shop.temperatureUnit')}
          options={(['C', 'F'] as const).map((one) => [one, `°${one}`])}
        />
      </Box>
      <Typography variant="body2" color="textSecondary">
        {t('shop.opening')}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'repeat(2, 1fr)', sm: 'repeat(4, 1fr)' },
          columnGap: 1.5,
          pt: 1,
        }}
      >
        {[1, 2, 3, 4, 5, 6, 7].map((weekday) => (
          <Line
            key={weekday}
            name={`${at}opening.${weekday - 1}`}
            label={weekdayName(`2024-01-0${weekday}`)}
            placeholder={t('shop.closed')}
            longest={20}
          />
        ))}
      </Box>
      <Flags
        name={`${at}careWays`}
        label={t('shop.careWays')}
        options={CARE_KINDS.filter((one) => one !== 'unknown').map((one) => [
          one,
          care[0] === one && care.length > 1 ? t('shop.usually', { care: t(`care.${one}`) }) : t(`care.${one}`),
        ])}
      />
    </Box>
  )
}

const exampleOf = (locale: string): string =>
  `${new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'numeric', year: 'numeric', timeZone: 'UTC' }).format(
    new Date('2027-02-23T00:00:00Z'),
  )}, ${new Intl.NumberFormat(locale).format(1234.5)}`
