import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { linePrice } from '@pelrin/core'
import type { JobBill as Bill } from '@pelrin/contract'
import { moneyText, number } from '../../messages/format.ts'

/** What a job costs: as it was said before, and beside it as it turned out. */
export function JobBill({ before, after }: { before: Bill | null; after: Bill | null }) {
  const { t } = useTranslation()
  const shown = after ?? before
  if (!shown) return null
  const money = (amount: number | null | undefined): string =>
    amount == null ? t('jobs.bill.none') : moneyText(amount)
  const both = before !== null && after !== null
  const rows: { name: string; before: string; after: string }[] = [
    {
      name: t('jobs.bill.minutes'),
      before: before ? number(before.minutes, 0) : '',
      after: after ? number(after.minutes, 0) : '',
    },
    {
      name: t('jobs.bill.labour'),
      before: money(before?.labour),
      after: money(after?.labour),
    },
    ...shown.parts.map(({ name, quantity, price }) => {
      const said = before?.parts.find((part) => part.name === name)
      return {
        name: quantity > 1 ? `${quantity} × ${name}` : name,
        before: said ? money(linePrice(said)) : '–',
        after: money(linePrice({ price, quantity })),
      }
    }),
    { name: t('jobs.bill.total'), before: money(before?.total), after: money(after?.total) },
  ]
  return (
    <Box
      component="table"
      aria-label={t(after ? 'jobs.bill.what' : 'jobs.estimate')}
      sx={{
        borderCollapse: 'collapse',
        maxWidth: 620,
        fontVariantNumeric: 'tabular-nums',
        '& td, & th': { borderTop: 1, borderColor: 'divider', py: 0.5, textAlign: 'left', fontWeight: 400 },
        '& td': { textAlign: 'right', pl: 3 },
        '& tr:last-child > *': { fontWeight: 700 },
      }}
    >
      {both && (
        <thead>
          <tr>
            <td />
            <td>{t('jobs.bill.before')}</td>
            <td>{t('jobs.bill.after')}</td>
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((row) => (
          <tr key={row.name}>
            <Typography component="th" scope="row">
              {row.name}
            </Typography>
            {before && <td>{row.before}</td>}
            {after && <td>{row.after}</td>}
          </tr>
        ))}
      </tbody>
    </Box>
  )
}
