import { MenuItem, Stack, TextField } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { KIND_OF_ITEM, type WearItemId } from '@pelrin/core'
import type { FittedPart } from '@pelrin/contract'
import { useCatalogue } from '../api/queries.ts'
import { moneyText } from '../messages/format.ts'

/** A part of which nobody says what it is. */
export const UNSAID_PART: FittedPart = { partId: null, name: null, price: null }

/** What was fitted: one of the catalogue, which leaves the stock, or a thing by its name. */
export function FittedField({
  item,
  value,
  wrong,
  onChange,
}: {
  item: WearItemId
  value: FittedPart
  /** What stands in its way. */
  wrong?: string | undefined
  onChange: (fitted: FittedPart) => void
}) {
  const { t } = useTranslation()
  const kind = KIND_OF_ITEM[item]
  const found = useCatalogue({ q: '', kind: kind ?? undefined, low: false })
  const parts = kind === null ? [] : (found.data?.pages.flatMap((page) => page.parts) ?? [])
  return (
    <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
      {parts.length > 0 && (
        <TextField
          select
          label={t('otherWear.fittedPart')}
          value={value.partId ?? ''}
          error={wrong !== undefined}
          helperText={wrong}
          onChange={({ target }) =>
            onChange({ ...value, partId: target.value === '' ? null : target.value, name: null })
          }
          sx={{ minWidth: 260 }}
        >
          <MenuItem value="">{t('otherWear.fittedOther')}</MenuItem>
          {parts.map(({ id, maker, name, stock, price }) => (
            <MenuItem key={id} value={id}>
              {[`${maker} ${name}`, t('closing.inStock', { count: stock }), price !== null && moneyText(price)]
                .filter(Boolean)
                .join(', ')}
            </MenuItem>
          ))}
        </TextField>
      )}
      {value.partId === null && (
        <TextField
          label={t('otherWear.fittedName')}
          value={value.name ?? ''}
          onChange={({ target }) => onChange({ ...value, name: target.value === '' ? null : target.value })}
          slotProps={{ htmlInput: { maxLength: 80 } }}
          sx={{ width: 260 }}
        />
      )}
    </Stack>
  )
}
