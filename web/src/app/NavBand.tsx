import { Box } from '@mui/material'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useLocation, useNavigate } from 'react-router'
import { ink } from '../theme/theme.ts'
import { PLACES, placeOf } from './places.ts'

/** Keys of the places, as they lie above the letters, and what is on their caps. */
const CAPS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-', '=']
const CODES = CAPS.map((cap) => (cap === '-' ? 'Minus' : cap === '=' ? 'Equal' : `Digit${cap}`))

/** For so long a place may take to show its heading, ms. */
const HEADING_MS = 3000

const headingOf = (): HTMLElement | null => document.querySelector('#main h1')

/**
 * Who went to a place by a key goes on from its heading, unless the place has put the focus somewhere itself.
 *
 * @param before the heading of the place that was left
 */
function toHeading(before: HTMLElement | null, until = performance.now() + HEADING_MS): void {
  const { activeElement: on, body } = document
  if (on !== body && on !== before && on?.closest('nav') == null) return
  const heading = headingOf()
  if (heading && heading !== before) {
    heading.tabIndex = -1
    heading.focus({ preventScroll: true })
  } else if (performance.now() < until) requestAnimationFrame(() => toHeading(before, until))
}

/** The place one is in is seen, however narrow the screen. */
const intoSight = (place: HTMLElement | null): void => place?.scrollIntoView({ inline: 'center', block: 'nearest' })

/** The places, engraved along the foot like the edge of a rule. */
export function NavBand({ bikeId }: { bikeId: string | undefined }) {
  const { t } = useTranslation()
  const { pathname } = useLocation()
  const navigate = useNavigate()
  const current = placeOf(pathname)

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const at = CODES.indexOf(event.code)
      const inField = event.target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(event.target.tagName)
      // Where digits themselves take Shift, a field needs it for typing.
      if (at < 0 || !event.shiftKey || event.ctrlKey || event.altKey || event.metaKey || inField) return
      const path = PLACES[at]?.path(bikeId)
      if (path === null || path === undefined) return
      event.preventDefault()
      const before = headingOf()
      void navigate(path)
      toHeading(before)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [bikeId, navigate])

  return (
    <Box
      component="nav"
      aria-label={t('app.places')}
      sx={{
        display: 'flex',
        // Where they do not fit side by side, they are drawn along by a thumb.
        overflowX: 'auto',
        scrollbarWidth: 'none',
        bgcolor: ink('blade'),
        borderTop: `1.5px solid ${ink('edge')}`,
        backgroundImage: `repeating-linear-gradient(90deg, ${ink('edge')} 0 1px, transparent 1px 14px)`,
        backgroundSize: '100% 8px',
        backgroundRepeat: 'no-repeat',
        flexShrink: 0,
      }}
    >
      {PLACES.map(({ name, path }, i) => {
        const to = path(bikeId)
        const active = current === name
        return (
          <Box
            key={name}
            component={to === null ? 'span' : Link}
            {...(to === null ? { 'aria-disabled': true } : { to })}
            {...(active ? { 'aria-current': 'page', ref: intoSight } : {})}
            sx={{
              flex: '1 0 auto',
              px: { xs: 1.25, sm: 0.5 },
              whiteSpace: 'nowrap',
              minHeight: 56,
              mt: '1px',
              display: 'flex',
              alignItems: 'center',
              justifyContent: 'center',
              gap: 0.75,
              minWidth: 0,
              textAlign: 'center',
              lineHeight: 1.1,
              fontSize: { xs: 'size.cap', sm: 'size.text' },
              fontWeight: 600,
              textDecoration: 'none',
              color: active ? 'primary.contrastText' : ink('ink'),
              bgcolor: active ? ink('steel') : 'transparent',
              opacity: to === null ? 0.45 : 1,
              borderLeft: i === 0 ? 'none' : `1.5px solid ${ink('edge')}`,
              // The long tick at each place's beginning is its border's upper end.
              borderImage: i === 0 ? 'none' : `linear-gradient(${ink('edge')} 22px, transparent 22px) 1`,
            }}
          >
            <Box
              component="span"
              aria-hidden
              sx={{ fontSize: 'size.cap', fontWeight: 500, opacity: 0.85, display: { xs: 'none', sm: 'inline' } }}
            >
              ⇧{CAPS[i]}
            </Box>
            {t(`place.${name}`)}
          </Box>
        )
      })}
    </Box>
  )
}
