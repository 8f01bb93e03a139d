import { Box, Button, Stack, ToggleButton, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { PART_KINDS } from '@pelrin/core'
import { CATALOGUE_SORTS } from '@pelrin/contract'
import { ChoiceField } from '../../pieces/ChoiceField.tsx'
import { SearchField } from '../../pieces/SearchField.tsx'
import { Empty, Failure, Loading } from '../../pieces/States.tsx'
import { PartRow } from './PartRow.tsx'
import type { CatalogueView } from './useCataloguePlace.ts'

/** The parts, narrowed down and in order. */
export function PartList(view: CatalogueView) {
  const { t } = useTranslation()
  const { catalogue, list, filters, kind, low, sort, wanted, setSheet } = view
  return (
    <Stack sx={{ minHeight: 0, pl: 2.75, pr: { xs: 2.75, md: 1 }, gridRow: { md: 2 } }}>
      <Stack direction="row" data-no-print sx={{ gap: 1, mb: 1, flexWrap: 'wrap' }}>
        <SearchField label={t('catalogue.search')} width={150} text={filters.text} onText={filters.setText} />
        <ChoiceField
          label={t('catalogue.kindField')}
          none={t('catalogue.any')}
          value={kind}
          options={PART_KINDS}
          said={(option) => t(`catalogue.kind.${option}`)}
          onChoose={(option) => filters.set({ kind: option })}
          width={140}
        />
        <ToggleButton
          value="low"
          selected={low}
          color="primary"
          onChange={() => filters.set({ low: low ? null : 'yes' })}
          sx={{ px: 1.25, gap: 0.75, whiteSpace: 'nowrap' }}
        >
          {t('catalogue.low')} <b>{list.first?.low ?? ''}</b>
        </ToggleButton>
      </Stack>
      {catalogue.isPending ? (
        <Loading />
      ) : !catalogue.data ? (
        <Failure error={catalogue.error} again={() => void catalogue.refetch()} />
      ) : list.rows.length === 0 ? (
        <Empty>{t('catalogue.none')}</Empty>
      ) : (
        <>
          <Rows {...view} />
          <Stack direction="row" sx={{ alignItems: 'center', py: 0.5, gap: 1, flexWrap: 'wrap' }}>
            <Typography variant="body2" color="textSecondary" aria-live="polite" sx={{ flex: 1 }}>
              {list.first && t('catalogue.count', { count: list.first.total })}
            </Typography>
            <ChoiceField
              label={t('catalogue.sortBy')}
              none={t('catalogue.byName')}
              value={sort}
              options={CATALOGUE_SORTS}
              said={(option) => t(`catalogue.sort.${option}`)}
              onChoose={(option) => filters.set({ sort: option })}
              width={172}
            />
            {low && wanted.length > 0 && (
              <Button variant="contained" data-no-print onClick={() => setSheet('order')}>
                {t('catalogue.orderLow')}
              </Button>
            )}
          </Stack>
        </>
      )}
    </Stack>
  )
}

function Rows({ list, chosenId, open }: CatalogueView) {
  const { t } = useTranslation()
  const { rows, scroller, drawn, heightPx } = list
  return (
    <Box
      ref={scroller}
      role="listbox"
      aria-label={t('catalogue.title')}
      tabIndex={0}
      sx={{ flex: 1, minHeight: { xs: 300, md: 0 }, maxHeight: { xs: 420, md: 'none' }, overflow: 'auto' }}
    >
      <Box role="presentation" sx={{ position: 'relative', height: heightPx }}>
        {drawn.map(({ index, start }) => {
          const part = rows[index]
          return (
            part && (
              <PartRow
                key={part.id}
                part={part}
                top={start}
                chosen={part.id === chosenId}
                onChoose={() => open(part.id)}
              />
            )
          )
        })}
      </Box>
    </Box>
  )
}
