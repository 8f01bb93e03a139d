import { Button, Divider, ListItemText, Menu, MenuItem } from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type Session } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { keys } from '../api/queries.ts'
import { SwitchDialog } from './SwitchDialog.tsx'

/** Who is at the bench; another person takes over by initials and PIN. */
export function PersonMenu({ session }: { session: Session }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { mode, systemMode, setMode } = useColorScheme()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [switching, setSwitching] = useState(false)
  const dark = (mode === 'system' ? systemMode : mode) === 'dark'
  const close = (): void => setAnchor(null)
  const signOut = async (): Promise<void> => {
    close()
    await ask(endpoints.signOut).catch(() => undefined)
    client.clear()
    client.setQueryData(keys.session, null)
  }
  return (
    <>
      <Button
        color="inherit"
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="menu"
        aria-label={`${t('person.here')}: ${session.person.name}`}
        sx={{ px: 1.5, fontWeight: 700 }}
      >
        {session.person.name.split(' ')[0]}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem
          onClick={() => {
            close()
            setSwitching(true)
          }}
        >
          {t('person.switch')}
        </MenuItem>
        <MenuItem onClick={() => setMode(dark ? 'light' : 'dark')}>{t('app.light')}</MenuItem>
        <Divider />
        <MenuItem onClick={() => void signOut()}>
          <ListItemText primary={t('person.out')} secondary={t('person.outWaiting')} />
        </MenuItem>
      </Menu>
      {switching && <SwitchDialog onClose={() => setSwitching(false)} />}
    </>
  )
}
