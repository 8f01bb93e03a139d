import { Box, Button, Stack, Tab, Tabs } from '@mui/material'
import PictureAsPdfIcon from '@mui/icons-material/PictureAsPdfOutlined'
import PrintIcon from '@mui/icons-material/PrintOutlined'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { SHEET_KINDS, type SheetKind } from '@pelrin/contract'
import { useSheet } from '../../api/queries.ts'
import { locale } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { SheetPage } from './SheetPage.tsx'
import { useCommands } from '../../keys/useCommands.ts'

/** What a customer is handed, as it will be on paper. */
export function SheetPlace() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { id = '', kind: asked = '' } = useParams()
  const kind: SheetKind = SHEET_KINDS.find((one) => one === asked) ?? 'customer'
  const sheet = useSheet(id, kind)
  useTitle(t(`sheet.title.${kind}`))
  const toBike = (): unknown => navigate(`/bikes/${id}`)
  useCommands('sheets', { print: () => window.print(), record: toBike, back: toBike })
  return (
    <Stack sx={{ px: 2.75, pt: 1, pb: 3, gap: 1.5 }}>
      <Stack data-no-print direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap' }}>
        <Tabs
          value={kind}
          onChange={(_, next: SheetKind) => void navigate(`/bikes/${id}/sheets/${next}`, { replace: true })}
          aria-label={t('sheet.title.customer')}
          variant="scrollable"
          allowScrollButtonsMobile
          sx={{ flex: 1, minWidth: 240 }}
        >
          {SHEET_KINDS.map((one) => (
            <Tab key={one} value={one} label={t(`sheet.title.${one}`)} />
          ))}
        </Tabs>
        <KeyButton of="sheets.print" variant="outlined" onClick={() => window.print()} startIcon={<PrintIcon />}>
          {t('sheet.print')}
        </KeyButton>
        <Button
          variant="contained"
          component="a"
          href={`/api/v1/bikes/${id}/sheets/${kind}.pdf?locale=${encodeURIComponent(locale())}`}
          target="_blank"
          rel="noreferrer"
          startIcon={<PictureAsPdfIcon />}
        >
          {t('sheet.pdf')}
        </Button>
      </Stack>
      {sheet.isPending ? (
        <Loading />
      ) : sheet.data ? (
        <Box sx={{ display: 'flex', justifyContent: 'center' }}>
          <SheetPage sheet={sheet.data} />
        </Box>
      ) : (
        <Failure error={sheet.error} again={() => void sheet.refetch()} />
      )}
    </Stack>
  )
}
