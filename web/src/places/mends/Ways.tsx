import { Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { MendOption } from '@pelrin/core'
import type { Mending } from './useMendBench.ts'
import { wayKey, WayList } from './WayList.tsx'

/** Ways to close it, once all of it was looked over. */
export function Ways({ known, drive, assumed, damaged, options, chosen, change }: Mending) {
  const { t } = useTranslation()
  return (
    <>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2 }}>
        <Typography sx={{ flex: 1, fontWeight: 600 }} role="status">
          {t('mends.allSeen', { count: damaged.length })}
        </Typography>
        <Button onClick={() => change({ seen: 0 })}>{t('mends.more')}</Button>
      </Stack>
      <WayList
        options={options}
        chosen={chosen}
        drive={drive}
        assumed={assumed}
        rePress={known.rePress}
        onChoose={(option: MendOption) => change({ way: wayKey(option) })}
      />
      <Typography color="textSecondary">
        {chosen && t(`mends.ends.${chosen.ends}`)} {t('mends.caution')}
      </Typography>
    </>
  )
}
