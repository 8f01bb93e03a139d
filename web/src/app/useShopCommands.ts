import { useColorScheme } from '@mui/material/styles'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { endpoints } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { keys } from '../api/queries.ts'
import { drafts } from '../drafts/drafts.ts'
import { NEW_BIKE_DRAFT } from '../places/new-bike/newBike.ts'
import type { ShopCommand } from './Palette.tsx'

/** Signs the device out: nothing of the shop stays in it. */
export function useSignOut(): () => Promise<void> {
  const client = useQueryClient()
  return async () => {
    await ask(endpoints.signOut).catch(() => undefined)
    client.clear()
    // Readings that are half typed stay for whoever comes next; who a customer is does not.
    drafts.remove(NEW_BIKE_DRAFT)
    client.setQueryData(keys.session, null)
  }
}

/** From light to dark and back. */
export function useLightOrDark(): () => void {
  const { mode, systemMode, setMode } = useColorScheme()
  const dark = (mode === 'system' ? systemMode : mode) === 'dark'
  return () => setMode(dark ? 'light' : 'dark')
}

/** What can be done from anywhere, beside going to a place. */
export function useShopCommands() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [switching, setSwitching] = useState(false)
  const [secrets, setSecrets] = useState(false)
  const signOut = useSignOut()
  const lightOrDark = useLightOrDark()
  const shopCommands: ShopCommand[] = [
    { words: t('keys.newBike'), run: () => void navigate('/new-bike') },
    { words: t('firstDay.title'), run: () => void navigate('/first-day') },
    { words: t('people.own'), run: () => setSecrets(true) },
    { words: t('keys.toCatalogue'), run: () => void navigate('/catalogue') },
    { words: t('keys.seeMessages'), run: () => void navigate('/messages') },
    { words: t('keys.somebodyElse'), run: () => setSwitching(true) },
    { words: t('keys.lightDark'), run: lightOrDark },
    { words: t('keys.signOut'), run: () => void signOut() },
  ]
  return { switching, setSwitching, secrets, setSecrets, shopCommands }
}
