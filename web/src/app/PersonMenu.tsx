import { Button, Divider, ListItemText, Menu, MenuItem } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Session } from '@pelrin/contract'
import { useLightOrDark, useSignOut } from './useShopCommands.ts'
import { OwnSecretsDialog } from '../places/people/OwnSecretsDialog.tsx'
import { SwitchDialog } from './SwitchDialog.tsx'

/** Who is at the bench; another person takes over by initials and PIN. */
export function PersonMenu({ session }: { session: Session }) {
  const { t } = useTranslation()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [switching, setSwitching] = useState(false)
  const [secrets, setSecrets] = useState(false)
  const close = (): void => setAnchor(null)
  const signOut = useSignOut()
  const lightOrDark = useLightOrDark()
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
        <MenuItem
          onClick={() => {
            close()
            setSecrets(true)
          }}
        >
          {t('people.own')}
        </MenuItem>
        <MenuItem onClick={lightOrDark}>{t('app.light')}</MenuItem>
        <Divider />
        <MenuItem
          onClick={() => {
            close()
            void signOut()
          }}
        >
          <ListItemText primary={t('person.out')} secondary={t('person.outWaiting')} />
        </MenuItem>
      </Menu>
      {secrets && <OwnSecretsDialog onClose={() => setSecrets(false)} />}
      {switching && <SwitchDialog onClose={() => setSwitching(false)} />}
    </>
  )
}
