import { Box, IconButton, Stack, Typography } from '@mui/material'
import { useEffect, useLayoutEffect, useMemo, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { Outlet, useLocation, useMatch, useSearchParams } from 'react-router'
import type { Session } from '@pelrin/contract'
import { useLineUp } from '../api/queries.ts'
import { drafts } from '../drafts/drafts.ts'
import { keysAreOf } from '../keys/ownKeys.ts'
import { TypingProvider } from '../keys/typing.tsx'
import { isCovered, OpenCommands, OpenCommandsContext } from '../keys/useCommands.ts'
import { dayAndClock } from '../messages/format.ts'
import { outbox } from '../outbox/outbox.ts'
import { useOutbox } from '../outbox/useOutbox.ts'
import { KeyCap } from '../pieces/KeyCap.tsx'
import { OwnSecretsDialog } from '../places/people/OwnSecretsDialog.tsx'
import { ScanButton } from '../places/tags/ScanButton.tsx'
import { Finder } from './Finder.tsx'
import { KeySheet } from './KeySheet.tsx'
import { NavBand } from './NavBand.tsx'
import { OutboxChip } from './OutboxChip.tsx'
import { Palette } from './Palette.tsx'
import { ProveDialog } from './ProveDialog.tsx'
import { SignInAgain } from './SignInAgain.tsx'
import { SwitchDialog } from './SwitchDialog.tsx'
import { useShopCommands } from './useShopCommands.ts'
import { PersonMenu } from './PersonMenu.tsx'
import { othersPlace } from './rights.ts'
import { ink } from '../theme/theme.ts'
import { RoleContext } from '../keys/role.ts'
import { SurroundingsContext } from './surroundings.ts'
import { useTold } from './Told.tsx'
import { useServerState } from './useServerState.ts'

/** The bike in hand: the one the address names, else the one on this stand, else the first of the line-up. */
function useBikeInHand(): string | undefined {
  const ofBike = useMatch('/bikes/:id/*')
  const [search] = useSearchParams()
  const lineUp = useLineUp()
  const visits = lineUp.data?.visits ?? []
  const onStand = visits.find((visit) => visit.here) ?? visits.find((visit) => visit.state !== 'done')
  return ofBike?.params.id ?? search.get('bike') ?? onStand?.bike.id
}

/** What is round every place: the shop, the finder, who is here, the places. */
export function Shell({ session }: { session: Session }) {
  const { t } = useTranslation()
  const [keysOpen, setKeysOpen] = useState(false)
  const [paletteOpen, setPaletteOpen] = useState(false)
  const [commands] = useState(() => new OpenCommands())
  const { switching, setSwitching, secrets, setSecrets, shopCommands } = useShopCommands()
  const { tell, told } = useTold()
  const bikeId = useBikeInHand()
  const { pathname } = useLocation()
  useHotkeys('?', () => setKeysOpen((open) => !open), { useKey: true, preventDefault: true })
  // What is half typed in a dialog is not left by a command of the place under it.
  useHotkeys('mod+k', () => !isCovered() && setPaletteOpen(true), { preventDefault: true, enableOnFormTags: true })
  useLayoutEffect(() => keysAreOf(session.person.id), [session.person.id])
  const surroundings = useMemo(() => ({ session, tell }), [session, tell])
  // A new place is read from its beginning, also by those who listen to it.
  useEffect(() => {
    document.getElementById('main')?.scrollTo(0, 0)
  }, [pathname])
  return (
    <SurroundingsContext value={surroundings}>
      <RoleContext value={session.person.role}>
        <OpenCommandsContext value={commands}>
          <TypingProvider>
            <Stack
              sx={{ height: '100dvh', bgcolor: 'background.default', [LOW]: { height: 'auto', minHeight: '100dvh' } }}
            >
              <Box
                component="a"
                href="#main"
                sx={{
                  position: 'absolute',
                  left: 8,
                  top: -60,
                  '&:focus': { top: 8 },
                  zIndex: 1500,
                  bgcolor: 'background.paper',
                  p: 1.5,
                }}
              >
                {t('app.skip')}
              </Box>
              <Stack
                component="header"
                direction="row"
                sx={{
                  alignItems: 'center',
                  gap: 2,
                  px: 2.25,
                  minHeight: 56,
                  borderBottom: 1,
                  borderColor: 'divider',
                  flexShrink: 0,
                }}
              >
                <Typography
                  sx={{
                    fontWeight: 700,
                    fontSize: 'size.lead',
                    whiteSpace: 'nowrap',
                    display: { xs: 'none', md: 'block' },
                  }}
                >
                  {session.shop.name}
                </Typography>
                <Finder />
                <ScanButton />
                <Box sx={{ flex: 1 }} />
                <OutboxChip />
                <Clock />
                <PersonMenu session={session} />
                <IconButton
                  aria-label={t('keys.title')}
                  onClick={() => setKeysOpen(true)}
                  sx={{ width: 48, height: 48, display: { xs: 'none', sm: 'inline-flex' } }}
                >
                  <KeyCap aria-hidden>?</KeyCap>
                </IconButton>
              </Stack>
              <Standing rebuilding={session.rebuilding} />
              <OthersPlace role={session.person.role} />
              <Box
                component="main"
                id="main"
                tabIndex={-1}
                sx={{
                  flex: 1,
                  minHeight: 0,
                  overflow: 'auto',
                  outline: 'none',
                  [LOW]: { flex: '1 0 auto', overflow: 'visible' },
                }}
              >
                <Outlet />
              </Box>
              <NavBand bikeId={bikeId} />
            </Stack>
            <ProveDialog session={session} />
            <SignInAgain session={session} />
            <KeySheet open={keysOpen} onClose={() => setKeysOpen(false)} />
            {paletteOpen && <Palette bikeId={bikeId} shop={shopCommands} onClose={() => setPaletteOpen(false)} />}
            {secrets && <OwnSecretsDialog onClose={() => setSecrets(false)} />}
            {switching && <SwitchDialog onClose={() => setSwitching(false)} />}
            {told}
          </TypingProvider>
        </OpenCommandsContext>
      </RoleContext>
    </SurroundingsContext>
  )
}

/** Where the page is drawn so large that little is left between head and foot, they go with the rest as it is scrolled. */
const LOW = '@media (max-height: 420px)'

/** Says at once what would be refused later: that a place is for others to work in. */
function OthersPlace({ role }: { role: Session['person']['role'] }) {
  const { t, i18n } = useTranslation()
  const { pathname } = useLocation()
  const roles = othersPlace(role, pathname)
  if (roles === null) return null
  const names = new Intl.ListFormat(i18n.language, { type: 'disjunction' }).format(roles.map((one) => t(`role.${one}`)))
  return (
    <Typography
      role="note"
      color="textSecondary"
      sx={{ px: 2.75, py: 0.75, borderBottom: 1, borderColor: 'divider', flexShrink: 0 }}
    >
      {t('app.othersPlace', { roles: names })}
    </Typography>
  )
}

/** What stands in the way of working as ever, if anything does. */
function Standing({ rebuilding }: { rebuilding: Session['rebuilding'] }) {
  const { t } = useTranslation()
  const online = useOnline()
  const server = useServerState()
  useOutbox()
  const lines = [
    !online ? t('app.offline') : server === 'away' ? t('app.away') : server === 'no-room' ? t('app.noRoom') : null,
    outbox.keeps() && drafts.keeps() ? null : t('app.notKept'),
    rebuilding ? t('app.rebuilding', { ...rebuilding }) : null,
  ].filter((line) => line !== null)
  if (lines.length === 0) return null
  return (
    <Box
      role="status"
      sx={{
        px: 2.25,
        py: 0.75,
        flexShrink: 0,
        fontWeight: 700,
        borderLeft: `8px solid ${ink('brass')}`,
        borderBottom: `2px solid ${ink('brass')}`,
        bgcolor: ink('sheet'),
      }}
    >
      {lines.map((line) => (
        <Box key={line}>{line}</Box>
      ))}
    </Box>
  )
}

function Clock() {
  const [now, setNow] = useState(() => new Date())
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), 10_000)
    return () => clearInterval(timer)
  }, [])
  return (
    <Typography color="textSecondary" sx={{ whiteSpace: 'nowrap', display: { xs: 'none', lg: 'block' } }}>
      {dayAndClock(now)}
    </Typography>
  )
}

function useOnline(): boolean {
  const [online, setOnline] = useState(() => navigator.onLine)
  useEffect(() => {
    const update = (): void => setOnline(navigator.onLine)
    window.addEventListener('online', update)
    window.addEventListener('offline', update)
    return () => {
      window.removeEventListener('online', update)
      window.removeEventListener('offline', update)
    }
  }, [])
  return online
}
