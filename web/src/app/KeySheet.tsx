import { Box, Button, FormControlLabel, Stack, Switch, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useLocation } from 'react-router'
import { commandsOf, type CommandPlace } from '../keys/commands.ts'
import { changeKeys, keyFor, takenBy, useOwnKeys } from '../keys/ownKeys.ts'
import { keySections, type KeyLine } from '../keys/sheet.ts'
import { KeyCap } from '../pieces/KeyCap.tsx'
import { SheetDialog } from '../pieces/SheetDialog.tsx'

/** Every key there is, by where it works, and a way to make the letters one's own. */
export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useTranslation()
  const { pathname } = useLocation()
  const own = useOwnKeys()
  const [changing, setChanging] = useState(false)
  const sections = keySections(own)
  const here = sections.filter(({ at }) => at.test(pathname))
  return (
    <SheetDialog open={open} onClose={onClose} title={t('keys.title')} maxWidth="lg">
      <Stack direction="row" sx={{ columnGap: 3, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}>
        <FormControlLabel
          control={<Switch checked={own.letters} onChange={(_, letters) => changeKeys({ ...own, letters })} />}
          label={t('keys.letters')}
        />
        {own.letters && (
          <Button
            variant={changing ? 'contained' : 'text'}
            aria-pressed={changing}
            onClick={() => setChanging(!changing)}
          >
            {t('keys.change')}
          </Button>
        )}
        {Object.keys(own.of).length > 0 && (
          <Button onClick={() => changeKeys({ ...own, of: {} })}>{t('keys.asShipped')}</Button>
        )}
      </Stack>
      <Box sx={{ columns: { xs: 1, sm: 2, md: 3 }, columnGap: 4 }}>
        {/* What works here comes first. */}
        {[...here, ...sections.filter((one) => !here.includes(one))].map(({ title, lines }) => (
          <Box key={title} sx={{ breakInside: 'avoid', pb: 3 }}>
            <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 1 }}>
              {t(title)}
            </Typography>
            <Stack component="dl" sx={{ m: 0, gap: 0.75 }}>
              {title === 'keys.anywhere' && <Line cap={<KeyCap>{t('keys.typing')}</KeyCap>}>{t('keys.finds')}</Line>}
              {lines.map((line) => (
                <Line
                  key={line.says}
                  cap={
                    changing && line.letterOf ? (
                      <OwnLetter {...line.letterOf} says={line.says} />
                    ) : (
                      line.cap !== null && <KeyCap>{line.cap}</KeyCap>
                    )
                  }
                >
                  {t(line.says)}
                </Line>
              ))}
            </Stack>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" color="textSecondary" sx={{ mt: 2 }}>
        {t(own.letters ? 'keys.note' : 'keys.lettersOff')}
      </Typography>
    </SheetDialog>
  )
}

const Line = ({ cap, children }: { cap: React.ReactNode; children: string }) => (
  <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
    <Box component="dt" sx={{ minWidth: 96 }}>
      {cap}
    </Box>
    <Box component="dd" sx={{ m: 0 }}>
      {children}
    </Box>
  </Stack>
)

/** A letter that can be another: pressed, then the letter; one that does something else here already is refused. */
function OwnLetter({ place, id, says }: { place: CommandPlace; id: string; says: KeyLine['says'] }) {
  const { t } = useTranslation()
  const own = useOwnKeys()
  const [waiting, setWaiting] = useState(false)
  const [taken, setTaken] = useState<string | null>(null)
  const letter = keyFor(place, id, own) ?? ''
  const take = (key: string): void => {
    const by = takenBy(place, id, key, own)
    setWaiting(by !== undefined)
    if (by !== undefined) {
      const [whose, which] = by.split('.') as [CommandPlace, string]
      setTaken(t('keys.taken', { letter: key.toUpperCase(), what: t(commandsOf(whose)[which]!.says) }))
      return
    }
    setTaken(null)
    changeKeys({ ...own, of: { ...own.of, [`${place}.${id}`]: key } })
  }
  return (
    <>
      <Button
        size="small"
        variant="outlined"
        aria-label={`${t(says)}: ${letter.toUpperCase()}`}
        onClick={() => setWaiting(true)}
        onBlur={() => setWaiting(false)}
        onKeyDown={(event) => {
          if (!waiting || !/^[a-z]$/i.test(event.key)) return
          event.preventDefault()
          event.stopPropagation()
          take(event.key.toLowerCase())
        }}
        sx={{ minWidth: 48, px: 1 }}
      >
        {waiting ? t('keys.pressLetter') : letter.toUpperCase()}
      </Button>
      {taken !== null && (
        <Typography role="alert" variant="body2" color="error">
          {taken}
        </Typography>
      )}
    </>
  )
}
