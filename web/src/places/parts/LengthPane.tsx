import { Box, Button, Checkbox, FormControlLabel, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import {
  capacityNeeded,
  derailleurLengthExplained,
  fixedLengthExplained,
  countsOf,
  derailleurCautions,
  derailleurLength,
  fixedLengths,
  bikeReach,
  lengthSchools,
  PITCH_MM,
  tensionedPitches,
  type Assumptions,
  type ChainOf,
  type Explanation,
  type FixedLoop,
  type Gear,
  type LengthDrive,
} from '@pelrin/core'
import type { PartsFacts } from '@pelrin/contract'
import { number } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Cap } from '../../pieces/Cap.tsx'
import { LoopDrawing } from '../../pieces/LoopDrawing.tsx'
import { Why } from '../../pieces/Why.tsx'
import { ReachChange, ReachMap, ReachWords } from '../../pieces/ReachMap.tsx'
import { ink } from '../../theme/theme.ts'

interface LengthProps {
  facts: PartsFacts
  /** What the shop assumes, its own values in place. */
  assumed: Assumptions
  /** The count chosen; null while none is known. */
  pitches: number | null
  onPitches: (pitches: number | null) => void
}

interface PaneProps extends LengthProps {
  /** The one that drives, or a tandem's second one. */
  of: ChainOf
  /** The count worked out, to set the chosen one beside. */
  worked: number | null
  /** Whether odd counts are offered, to be closed by a half link. */
  halfLink: boolean
  onHalfLink: (on: boolean) => void
}

/** How long the chain is to be, by every way of finding it, and which gears it then reaches. */
export function LengthPane({ facts, of, assumed, pitches, worked, halfLink, onHalfLink, onPitches }: PaneProps) {
  const { t } = useTranslation()
  const drive = facts.drive as LengthDrive
  const lengthWhy =
    of === 'drive' && drive.type === 'derailleur'
      ? derailleurLengthExplained(drive, assumed)
      : pitches === null
        ? []
        : fixedWhy(facts, { of, halfLink, pitches }, assumed)
  const step = halfLink && (of === 'timing' || drive.type !== 'derailleur') ? 1 : 2
  return (
    <Stack component="section" aria-label={t('parts.length')} sx={{ gap: 1 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 1 }}>
        <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1 }}>
          <Typography variant="h2" component="h2" sx={{ whiteSpace: 'nowrap' }}>
            {pitches === null ? t('parts.length') : t('parts.pitches', { count: pitches })}
          </Typography>
          {pitches !== null && <Why explanations={lengthWhy} label={t('parts.length')} />}
        </Stack>
        {pitches !== null && (
          <Stack direction="row" sx={{ gap: 0.5, alignItems: 'center' }}>
            {[-step, step].map((by) => (
              <KeyButton
                cap={by < 0 ? '←' : '→'}
                key={by}
                variant="outlined"
                aria-label={t(by < 0 ? 'parts.fewer' : 'parts.more', { count: step })}
                onClick={() => onPitches(pitches + by)}
                sx={{ minWidth: 48, px: 1 }}
              >
                {by < 0 ? `−${step}` : `+${step}`}
              </KeyButton>
            ))}
          </Stack>
        )}
      </Stack>
      {pitches !== null && (
        <Typography variant="body2" color="textSecondary">
          {t('parts.counts', {
            pitches,
            without: countsOf(pitches).withoutJoint,
            links: number(countsOf(pitches).wholeLinks, 0),
          })}
        </Typography>
      )}
      {of === 'drive' && drive.type === 'derailleur' ? (
        <DerailleurLengths
          drive={drive}
          facts={facts}
          assumed={assumed}
          pitches={pitches}
          worked={worked}
          onPitches={onPitches}
        />
      ) : (
        <FixedLengths
          facts={facts}
          of={of}
          assumed={assumed}
          pitches={pitches}
          halfLink={halfLink}
          onHalfLink={onHalfLink}
          onPitches={onPitches}
        />
      )}
    </Stack>
  )
}

/** What a loop with no derailleur goes over; null where it is not known. */
function fixedLoopOf({ drive }: PartsFacts, of: ChainOf, halfLink: boolean): FixedLoop | null {
  const { axleMm: axle, fronts, sprockets, timing } = drive
  const axleMm = of === 'timing' ? timing && { from: timing.fromMm, to: timing.toMm } : axle
  const frontTeeth = of === 'timing' ? timing?.teeth[0] : fronts[0]
  const rearTeeth = of === 'timing' ? timing?.teeth[1] : sprockets[0]
  return axleMm && frontTeeth !== undefined && rearTeeth !== undefined
    ? { frontTeeth, rearTeeth, fromMm: axleMm.from, toMm: axleMm.to, halfLink }
    : null
}

function fixedWhy(
  facts: PartsFacts,
  { of, halfLink, pitches }: { of: ChainOf; halfLink: boolean; pitches: number },
  assumed: Assumptions,
): Explanation[] {
  const loop = fixedLoopOf(facts, of, halfLink)
  return loop ? fixedLengthExplained(loop, pitches, assumed) : []
}

function DerailleurLengths({
  drive,
  facts,
  assumed,
  pitches,
  worked,
  onPitches,
}: LengthProps & { drive: LengthDrive; worked: number | null }) {
  const { t } = useTranslation()
  const known = derailleurLength(drive, assumed)
  const reachAt = (count: number | null): Gear[] | null => (count === null ? null : bikeReach(drive, count, assumed))
  const gears = reachAt(pitches)
  // What it was before links went, or as it ought to be: the old count where the chain is being mended, else the one worked out.
  const besides = facts.oldPitches ?? worked
  const before = besides === pitches ? null : reachAt(besides)
  return (
    <>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {lengthSchools(drive, facts.oldPitches, assumed).map(({ school, pitches: count, missing, apart, bound }) => (
          <Length
            key={school}
            name={t(`parts.schoolOf.${school}`)}
            count={count}
            chosen={count === pitches}
            onChoose={() => onPitches(count)}
            note={
              count === null
                ? t('parts.schoolMissing', { facts: missing.map((fact) => t(`parts.lengthFact.${fact}`)).join(', ') })
                : bound !== null
                  ? t(`parts.bound.${bound}`)
                  : school === 'largest-and-added' && known
                    ? [
                        t('parts.loop', { loop: number(known.loop, 1) }),
                        t(`parts.added.${known.added.from}`, { count: known.added.pitches }),
                        ...(known.pulleyPitches > 0 ? [t('parts.pulleyPitches', { count: known.pulleyPitches })] : []),
                      ].join(', ')
                    : apart === null
                      ? ''
                      : apart === 0
                        ? t('parts.apart.same')
                        : t(apart > 0 ? 'parts.apart.more' : 'parts.apart.fewer', { count: Math.abs(apart) })
            }
          />
        ))}
      </Box>
      {derailleurCautions(drive).map((caution) => (
        <Typography key={caution} variant="body2" sx={{ color: ink('brass'), fontWeight: 600 }}>
          {t(`parts.derailleur.${caution}`, {
            capacity: drive.capacityTeeth ?? 0,
            needed: capacityNeeded(drive),
            largest: drive.largestSprocketTeeth ?? 0,
          })}
        </Typography>
      ))}
      {known && gears && pitches !== null && (
        <LoopDrawing
          frontTeeth={known.largestRing}
          rearTeeth={known.largestSprocket}
          chainstayMm={known.chainstayMm}
          slackMm={(pitches - known.pulleyPitches - known.loop) * PITCH_MM}
        />
      )}
      {gears && (
        <Box>
          <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 0.5 }}>
            {t('parts.reach')}
          </Typography>
          <ReachMap gears={gears} before={before} />
          <ReachWords gears={gears} judged={drive.capacityTeeth !== null} />
          {before && besides !== null && <ReachChange gears={gears} before={before} pitches={besides} />}
        </Box>
      )}
    </>
  )
}

function FixedLengths({
  facts,
  of,
  assumed,
  pitches,
  halfLink,
  onHalfLink,
  onPitches,
}: LengthProps & Pick<PaneProps, 'of' | 'halfLink' | 'onHalfLink'>) {
  const { t } = useTranslation()
  const oldPitches = of === 'timing' ? null : facts.oldPitches
  const loop = fixedLoopOf(facts, of, halfLink)
  const found = loop && fixedLengths(loop, assumed)
  const standing = found?.find((one) => one.pitches === pitches)
  const drawn = standing && loop ? { ...loop, ...standing } : null
  return (
    <>
      {found === null && <Typography variant="body2">{t('parts.axleMissing')}</Typography>}
      {found?.length === 0 && loop && (
        <Typography variant="body2" sx={{ color: ink('brass'), fontWeight: 600 }}>
          {t('parts.tensioner', { count: tensionedPitches(loop) })}
        </Typography>
      )}
      {found !== null && (
        <FormControlLabel
          control={<Checkbox checked={halfLink} onChange={(_, on) => onHalfLink(on)} />}
          label={
            <>
              {t('parts.halfLink')} <Cap of="parts.halfLink" />
            </>
          }
        />
      )}
      {drawn && (
        <LoopDrawing
          frontTeeth={drawn.frontTeeth}
          rearTeeth={drawn.rearTeeth}
          chainstayMm={drawn.chainstayMm}
          slackMm={0}
        />
      )}
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {found?.map((one) => (
          <Length
            key={one.pitches}
            name={t('parts.schoolOf.axle', { mm: number(one.chainstayMm, 1) })}
            count={one.pitches}
            chosen={one.pitches === pitches}
            onChoose={() => onPitches(one.pitches)}
            note={one.halfLink ? t('parts.withHalfLink') : ''}
          />
        ))}
        {oldPitches !== null && (
          <Length
            name={t('parts.schoolOf.match-old')}
            count={oldPitches}
            chosen={oldPitches === pitches}
            onChoose={() => onPitches(oldPitches)}
            note=""
          />
        )}
      </Box>
    </>
  )
}

/** One way of finding the length, and what it comes to. */
function Length({
  name,
  note,
  count,
  chosen,
  onChoose,
}: {
  name: string
  note: string
  count: number | null
  chosen: boolean
  onChoose: () => void
}) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) 64px',
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        minHeight: 40,
      }}
    >
      <Typography variant="body2" sx={{ lineHeight: 1.2 }}>
        {name}
        {note !== '' && (
          <Typography component="span" variant="body2" color="textSecondary" sx={{ display: 'block', lineHeight: 1.2 }}>
            {note}
          </Typography>
        )}
      </Typography>
      <Button
        disabled={count === null}
        aria-pressed={chosen}
        onClick={onChoose}
        sx={{
          minHeight: 40,
          minWidth: 56,
          fontSize: 18,
          fontWeight: chosen ? 700 : 500,
          color: 'text.primary',
          boxShadow: chosen ? `inset 0 -3px ${ink('steel')}` : 'none',
          borderRadius: 0,
        }}
      >
        {count ?? '–'}
      </Button>
    </Box>
  )
}
