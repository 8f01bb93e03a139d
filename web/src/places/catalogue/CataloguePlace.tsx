import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useBike, useCataloguePart, useSystems } from '../../api/queries.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Empty, Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { OrderDialog } from '../orders/OrderDialog.tsx'
import { PartsTabs } from '../parts/PartsTabs.tsx'
import { AddPartDialog } from './AddPartDialog.tsx'
import { PartList } from './PartList.tsx'
import { PartPane } from './PartPane.tsx'
import { TableDialog } from './TableDialog.tsx'
import { useCataloguePlace, type CatalogueView } from './useCataloguePlace.ts'

/** Every part the shop knows: found, counted, changed; on the left the list, on the right the one chosen. */
export function CataloguePlace() {
  const { t } = useTranslation()
  const view = useCataloguePlace()
  useTitle(t('catalogue.title'))
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '440px minmax(0, 1fr)' },
        gridTemplateRows: { md: 'auto minmax(0, 1fr)' },
        height: { md: '100%' },
      }}
    >
      <Stack
        direction="row"
        sx={{
          gridColumn: { md: '1 / 3' },
          justifyContent: 'space-between',
          alignItems: 'center',
          gap: 2,
          px: 2.75,
          pt: 1.5,
          pb: 1,
          flexWrap: 'wrap',
        }}
      >
        <Typography variant="h1">{t('catalogue.title')}</Typography>
        <PartsTabs now="catalogue" bikeId={view.bikeId} />
        <Box sx={{ flex: 1 }} />
        <Stack direction="row" data-no-print sx={{ gap: 1, flexWrap: 'wrap' }}>
          <KeyButton of="catalogue.add" variant="outlined" onClick={() => view.setSheet('add')} sx={{ px: 1.5 }}>
            {t('catalogue.add')}
          </KeyButton>
          <Button variant="outlined" onClick={() => view.setSheet('table')} sx={{ px: 1.5 }}>
            {t('catalogue.in')}
          </Button>
          <Button variant="outlined" component="a" href="/api/v1/catalogue.csv" download sx={{ px: 1.5 }}>
            {t('catalogue.out')}
          </Button>
        </Stack>
      </Stack>
      <PartList {...view} />
      <Chosen {...view} />
      <Sheets {...view} />
    </Box>
  )
}

function Chosen({ bikeId, chosenId, moving, setMoving }: CatalogueView) {
  const { t } = useTranslation()
  const bike = useBike(bikeId)
  const systems = useSystems()
  const item = useCataloguePart(chosenId)
  return (
    <Box
      data-no-print
      sx={{
        minWidth: 0,
        minHeight: 0,
        overflow: { md: 'auto' },
        gridRow: { md: 2 },
        px: 2.75,
        pb: 3,
        borderLeft: { md: 1 },
        borderColor: { md: 'divider' },
      }}
    >
      {item.data ? (
        <PartPane
          item={item.data}
          systems={systems.data ?? []}
          bike={bike.data ? { id: bike.data.summary.id, name: bike.data.summary.label } : null}
          moving={moving}
          onMoving={setMoving}
        />
      ) : chosenId === undefined ? (
        <Empty>{t('catalogue.choose')}</Empty>
      ) : item.isPending ? (
        <Loading />
      ) : (
        <Failure error={item.error} again={() => void item.refetch()} />
      )}
    </Box>
  )
}

function Sheets({ sheet, setSheet, open, wanted }: CatalogueView) {
  const systems = useSystems()
  const close = (): void => setSheet(null)
  if (sheet === 'add')
    return (
      <AddPartDialog
        systems={systems.data ?? []}
        onAdded={(added) => {
          close()
          open(added)
        }}
        onClose={close}
      />
    )
  if (sheet === 'table') return <TableDialog onClose={close} />
  return sheet === 'order' && <OrderDialog wanted={wanted} onClose={close} />
}
