import { Autocomplete, Box, TextField } from '@mui/material'
import { useContext, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { commandsOf, capOf } from '../keys/commands.ts'
import { keyFor, useOwnKeys } from '../keys/ownKeys.ts'
import { OpenCommandsContext } from '../keys/useCommands.ts'
import { KeyCap } from '../pieces/KeyCap.tsx'
import { SheetDialog } from '../pieces/SheetDialog.tsx'
import { PLACES } from './places.ts'

interface Offered {
  readonly key: string
  readonly words: string
  readonly cap: string | null
  readonly run: () => void
}

/** What can be done for the shop from anywhere, beside going to its places. */
export interface ShopCommand {
  readonly words: string
  readonly run: () => void
}

/** Everything that can be done here and now, found by its words: for whoever does not know its key, or has none. */
export function Palette({
  bikeId,
  shop,
  onClose,
}: {
  bikeId: string | undefined
  shop: readonly ShopCommand[]
  onClose: () => void
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const own = useOwnKeys()
  const open = useContext(OpenCommandsContext)
  // As they were when it opened: it lies over the place.
  const [here] = useState(() => open.all())
  const offered: Offered[] = [
    ...here.map(({ place, id, run }) => {
      const key = keyFor(place, id, own)
      return {
        key: `${place}.${id}`,
        words: t(commandsOf(place)[id]!.says),
        cap: key === null ? null : capOf(key),
        run,
      }
    }),
    ...PLACES.flatMap(({ name, path }) => {
      const to = path(bikeId)
      if (to === null) return []
      return [
        { key: name, words: t('keys.goTo', { place: t(`place.${name}`) }), cap: null, run: () => void navigate(to) },
      ]
    }),
    ...shop.map(({ words, run }) => ({ key: words, words, cap: null, run })),
  ].filter(({ words }, i, all) => all.findIndex((one) => one.words === words) === i)
  return (
    <SheetDialog open onClose={onClose} title={t('keys.palette')} maxWidth="sm" fullWidth>
      <Box sx={{ minHeight: '58vh' }}>
        <Autocomplete<Offered>
          open
          forcePopupIcon={false}
          onClose={(_, reason) => reason === 'escape' && onClose()}
          disablePortal
          autoHighlight
          options={offered}
          getOptionLabel={({ words }) => words}
          getOptionKey={({ key }) => key}
          filterOptions={(all, { inputValue }) => all.filter(({ words }) => saysAll(words, inputValue))}
          noOptionsText={t('keys.nothing')}
          onChange={(_, chosen) => {
            if (!chosen) return
            onClose()
            // Once it no longer lies over the place.
            setTimeout(chosen.run)
          }}
          renderInput={(params) => <TextField {...params} autoFocus label={t('keys.what')} sx={{ mt: 1 }} />}
          renderOption={({ key, ...props }, { words, cap }) => (
            <Box component="li" key={key} {...props} sx={{ minHeight: '48px !important', gap: 2 }}>
              <Box sx={{ flex: 1 }}>{words}</Box>
              {cap !== null && <KeyCap>{cap}</KeyCap>}
            </Box>
          )}
          slotProps={{
            popper: { sx: { position: 'static !important', transform: 'none !important', width: '100% !important' } },
            listbox: { sx: { maxHeight: '50vh' } },
          }}
        />
      </Box>
    </SheetDialog>
  )
}

/** Whether every word that is typed begins a word of these. */
const saysAll = (words: string, typed: string): boolean => {
  const of = words.toLowerCase().split(/[\s,’]+/)
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((one) => of.some((word) => word.startsWith(one)))
}
