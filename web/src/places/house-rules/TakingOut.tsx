import { Box, Button, Stack, Typography } from '@mui/material'
import DownloadIcon from '@mui/icons-material/FileDownloadOutlined'
import UploadIcon from '@mui/icons-material/FileUploadOutlined'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { TABLE_NAMES, type TableName, may } from '@pelrin/contract'
import { useSurroundings } from '../../app/surroundings.ts'
import { TableInDialog } from './TableInDialog.tsx'
import { WholeShop } from './WholeShop.tsx'
import { useOwnersFile } from './useOwnersFile.ts'

/** What the shop takes out as tables, and in. */
export function TakingOut() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const download = useOwnersFile()
  const [coming, setComing] = useState<TableName | null>(null)
  if (!may(session.person.role, 'owner')) return <Typography>{t('rules.out.owner')}</Typography>
  return (
    <Stack sx={{ gap: 1.5, maxWidth: 760 }}>
      <Typography color="textSecondary">{t('rules.out.note')}</Typography>
      <Box component="ul" aria-label={t('rules.tab.taking-out')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {TABLE_NAMES.map((name) => (
          <Stack
            component="li"
            key={name}
            direction="row"
            sx={{ alignItems: 'center', gap: 2, borderTop: 1, borderColor: 'divider', py: 0.75 }}
          >
            <Typography sx={{ flex: 1, fontSize: 'size.lead' }}>{t(`rules.out.table.${name}`)}</Typography>
            <Button
              component="a"
              href={`/api/v1/export/${name}.csv`}
              download
              onClick={download}
              variant="outlined"
              startIcon={<DownloadIcon />}
              aria-label={`${t('rules.out.go')}: ${t(`rules.out.table.${name}`)}`}
              sx={{ minHeight: 48 }}
            >
              {t('rules.out.go')}
            </Button>
            <Button
              variant="outlined"
              startIcon={<UploadIcon />}
              onClick={() => setComing(name)}
              aria-label={`${t('rules.out.comes')}: ${t(`rules.out.table.${name}`)}`}
              sx={{ minHeight: 48 }}
            >
              {t('rules.out.comes')}
            </Button>
          </Stack>
        ))}
      </Box>
      <Typography color="textSecondary">{t('rules.out.catalogue')}</Typography>
      <WholeShop />
      {coming && <TableInDialog name={coming} onClose={() => setComing(null)} />}
    </Stack>
  )
}
