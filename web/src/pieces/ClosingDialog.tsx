import { Box, Button, Stack, Typography } from '@mui/material'
import { useRef, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { CLICKS, type Click } from '@pelrin/core'
import type { ChainJoint, Closing, JointModel } from '@pelrin/contract'
import { Refused } from '../forms/Refused.tsx'
import { ink } from '../theme/theme.ts'
import { ClickButtons } from './ClickButtons.tsx'
import { KeyCap } from './KeyCap.tsx'
import { SheetDialog } from './SheetDialog.tsx'
import { useLinks } from './useLinks.ts'

/** Whether somebody has to say how a chain is closed as it goes back on. */
export const asksClosing = (joint: ChainJoint | null, toLink = false): boolean =>
  joint !== null && (joint.kind === 'link' || joint.mayClose !== 'yes' || (toLink && joint.kind !== 'clip'))

/** Whether its own joint cannot close it once more. */
const wantsNew = (joint: ChainJoint | null, toLink: boolean): boolean =>
  joint?.mayClose === 'no' || (toLink && joint !== null && joint.kind !== 'link')

/**
 * A chain goes back on: how did its link click? One more closing is counted; a link that is used up, or does not click, asks for a new one
 * from stock. Digits say it.
 */
export function ClosingDialog({
  bikeId,
  joint,
  toLink = false,
  mustBeNew = false,
  other = false,
  title,
  busy,
  wrong,
  onClose,
  onClosed,
}: {
  bikeId: string
  /** What it was closed with; null: nobody looked. */
  joint: ChainJoint | null
  /** It is closed by a link from now on. */
  toLink?: boolean
  /** Whatever closed it before: a new one from stock. */
  mustBeNew?: boolean
  /** It may be one that is not of this shop's stock. */
  other?: boolean
  title: string
  busy: boolean
  wrong: string | undefined
  onClose: () => void
  onClosed: (closing: Closing) => void
}) {
  const { t } = useTranslation()
  const forced = mustBeNew || wantsNew(joint, toLink)
  const [fresh, setFresh] = useState(forced)
  const [chosen, setChosen] = useState<string | null>(null)
  const [click, setClick] = useState<Click | null>(null)
  const met = useRef(false)
  const links = useLinks(bikeId, fresh, toLink)
  const link = chosen === OTHER ? undefined : (links.find(({ id }) => id === chosen) ?? links[0])
  const ready = !fresh || link !== undefined || chosen === OTHER
  const spent = !fresh && joint?.mayClose === 'by-feel'
  const say = (one: Click): void => {
    if (busy) return
    setClick(one)
    if (one !== 'firm') {
      // Half closed is not closed: it gets no second try.
      setFresh(true)
      return
    }
    if (!ready) return
    onClosed({ click: one, byFeel: spent, linkPartId: fresh ? (link?.id ?? null) : null })
  }
  // Also while a link is being chosen: nothing is typed here.
  const everywhere = { enableOnFormTags: true } as const
  useHotkeys('1,2,3', (event) => say(CLICKS[Number(event.key) - 1]!), everywhere, [busy, fresh, link, ready, spent])
  useHotkeys('n', () => setFresh(true), everywhere)
  return (
    <SheetDialog open title={title} maxWidth="sm" fullWidth onClose={onClose}>
      <Stack sx={{ gap: 1.5, py: 1 }}>
        {joint && <SoFar joint={joint} toLink={toLink} fresh={fresh} spent={spent} />}
        {click !== null && click !== 'firm' && (
          <Typography sx={{ fontWeight: 600, color: ink('madder') }}>{t('closing.noSecond')}</Typography>
        )}
        {fresh && <Links links={links} chosen={link?.id ?? chosen} other={other} onChoose={setChosen} />}
        <Typography variant="h3" component="h2">
          {t('closing.how')}
        </Typography>
        <ClickButtons
          said={null}
          lead="firm"
          label={t('closing.how')}
          disabled={busy || !ready}
          first={(button) => {
            // Once, as it opens: what is chosen after that keeps the focus.
            if (button && !met.current) {
              met.current = true
              button.focus()
            }
          }}
          onSay={say}
        />
        {!fresh && (
          <Button onClick={() => setFresh(true)} sx={{ alignSelf: 'flex-start', gap: 1 }}>
            {t('closing.takeNew')} <KeyCap>N</KeyCap>
          </Button>
        )}
        <Refused>{wrong}</Refused>
        <Typography variant="body2" color="textSecondary">
          {t('jobs.hazard.failure')}
        </Typography>
      </Stack>
    </SheetDialog>
  )
}

/** A link that is of no stock. */
const OTHER = 'other'

/** How often it was closed, and whether it may be once more. */
function SoFar({
  joint,
  toLink,
  fresh,
  spent,
}: {
  joint: ChainJoint
  toLink: boolean
  fresh: boolean
  spent: boolean
}) {
  const { t } = useTranslation()
  if (toLink && joint.kind !== 'link') return <Typography>{t('closing.toLink')}</Typography>
  if (joint.mayClose === 'no') return <Typography>{t('closing.usedUp')}</Typography>
  if (fresh) return null
  const { closings, most } = joint
  return (
    <>
      <Typography>
        {closings === null
          ? t('closing.uncounted', { link: joint.name ?? t(`parts.joint.${joint.kind}`) })
          : most === null
            ? t('closing.counted', { link: joint.name ?? t(`parts.joint.${joint.kind}`), count: closings })
            : t('closing.countedOf', { link: joint.name ?? t(`parts.joint.${joint.kind}`), closings, most })}
      </Typography>
      {spent && <Typography sx={{ fontWeight: 600, color: ink('brass') }}>{t('closing.spent')}</Typography>}
    </>
  )
}

/** Which link is taken from stock. */
function Links({
  links,
  chosen,
  other,
  onChoose,
}: {
  links: readonly JointModel[]
  chosen: string | null
  other: boolean
  onChoose: (id: string) => void
}) {
  const { t } = useTranslation()
  if (links.length === 0 && !other) return <Typography color="textSecondary">{t('closing.noLinks')}</Typography>
  return (
    <Box role="radiogroup" aria-label={t('closing.which')} sx={{ display: 'grid', gap: 0.75 }}>
      {links.slice(0, 5).map(({ id, maker, name, stock }) => (
        <Button
          key={id}
          role="radio"
          aria-checked={id === chosen}
          variant={id === chosen ? 'contained' : 'outlined'}
          color="secondary"
          onClick={() => onChoose(id)}
          sx={{ minHeight: 52, justifyContent: 'space-between', gap: 2 }}
        >
          <span>
            {maker} {name}
          </span>
          <span>{t('closing.inStock', { count: stock })}</span>
        </Button>
      ))}
      {other && (
        <Button
          role="radio"
          aria-checked={chosen === OTHER}
          variant={chosen === OTHER ? 'contained' : 'outlined'}
          color="secondary"
          onClick={() => onChoose(OTHER)}
          sx={{ minHeight: 52, justifyContent: 'flex-start' }}
        >
          {t('closing.other')}
        </Button>
      )}
    </Box>
  )
}
