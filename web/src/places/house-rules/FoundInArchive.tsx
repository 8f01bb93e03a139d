import { Box, Button, Checkbox, FormControlLabel, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { TakenArchive } from '../../api/archiveIn.ts'

export const sumOf = ({ tables }: TakenArchive, what: 'added' | 'same' | 'conflicts'): number =>
  tables.reduce((sum, one) => sum + one[what], 0)

/** What an archive would bring, before any of it is there: rows, whether they take the place of what is here, and what the shop would be. */
export function FoundInArchive({
  name,
  found,
  busy,
  onTake,
}: {
  name: string
  found: TakenArchive
  busy: boolean
  onTake: (settings: boolean) => void
}) {
  const { t } = useTranslation()
  const [settings, setSettings] = useState(found.replaces)
  const added = sumOf(found, 'added')
  const conflicts = sumOf(found, 'conflicts')
  return (
    <Box>
      <Typography sx={{ fontWeight: 700 }}>
        {name}:{' '}
        {added === 0 && conflicts === 0
          ? t('rules.out.nothing')
          : [
              t('rules.out.added', { count: added }),
              t('rules.out.same', { count: sumOf(found, 'same') }),
              t('rules.out.conflicts', { count: conflicts }),
            ].join(', ')}
      </Typography>
      {found.replaces && added > 0 && <Typography>{t('rules.out.replaces')}</Typography>}
      {found.settings.length > 0 && added > 0 && (
        <Box sx={{ my: 1 }}>
          <Typography>{t('rules.out.settings')}</Typography>
          <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 2 }}>
            {found.settings.map(({ name: setting, here, there }) => (
              <Box key={setting} sx={{ display: 'contents' }}>
                <Typography component="dt" color="textSecondary">
                  {t(`shop.${setting as 'name'}`, { defaultValue: setting })}
                </Typography>
                <Typography component="dd" sx={{ m: 0 }}>
                  {t('rules.out.fromTo', { here: told(here), there: told(there) })}
                </Typography>
              </Box>
            ))}
          </Box>
          <FormControlLabel
            control={<Checkbox checked={settings} onChange={(_, on) => setSettings(on)} />}
            label={t('rules.out.takeSettings')}
          />
        </Box>
      )}
      {added > 0 && (
        <Button variant="contained" disabled={busy} onClick={() => onTake(settings)} sx={{ mt: 1, minHeight: 56 }}>
          {t('rules.out.go2', { count: added })}
        </Button>
      )}
    </Box>
  )
}

/** A setting as one line: hours by the day, a list by commas. */
function told(value: unknown): string {
  if (Array.isArray(value)) return value.map(told).join(', ')
  if (typeof value === 'object' && value !== null) {
    const { from = '', to = '' } = value as { from?: string; to?: string }
    return `${from}–${to}`
  }
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '–'
}
