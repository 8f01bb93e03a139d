import { Box, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import type { TFunction } from 'i18next'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { assumptionsWith, shoppingList, type ChainModel, type ChainOf, type JointCandidate } from '@pelrin/core'
import type { BikeMatch, BikeParts, JudgedChain, JudgedJoint } from '@pelrin/contract'
import { useBike, useBikeParts, useMatching } from '../../api/queries.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Cap } from '../../pieces/Cap.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { usePartsMatch } from '../../workers/usePartsMatch.ts'
import { OrderDialog, type ToOrder } from '../orders/OrderDialog.tsx'
import { CompareDialog } from './CompareDialog.tsx'
import { CutWords } from './CutWords.tsx'
import { DriveDialog } from './DriveDialog.tsx'
import { JobParts, missingOf, useKeeping, type JobLine } from './JobParts.tsx'
import { JointDialog } from './JointDialog.tsx'
import { LengthPane } from './LengthPane.tsx'
import { chainName, jointKey, jointName, priceText } from './partLook.ts'
import { placeText, ruledText } from './partAnswer.ts'
import { PartsList, type ListedPart } from './PartsList.tsx'
import { PartsTabs } from './PartsTabs.tsx'
import { RulesOf } from './RulesOf.tsx'
import { saidOf } from '../../messages/said.ts'
import { useCommands } from '../../keys/useCommands.ts'

const FEWEST = 20
const MOST = 400

/** What lies open over the place. */
type Sheet = 'drive' | 'joint' | 'compare' | 'order'

const stepped = (keys: readonly string[], from: string | null | undefined, by: number): string | null =>
  keys[Math.min(keys.length - 1, Math.max(0, keys.indexOf(from ?? '') + by))] ?? null

/** With what, how long, and do we have it: chains, joints and the length for one bike. */
export function PartsPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const bike = useBike(id)
  const found = useBikeParts(id)
  useTitle(t('place.parts'))
  if (bike.isPending || found.isPending) return <Loading />
  if (!bike.data || !found.data)
    return (
      <Failure
        error={bike.error ?? found.error}
        again={() => {
          void bike.refetch()
          void found.refetch()
        }}
      />
    )
  return <PartsOf key={id} bikeId={id} bike={bike.data} facts={found.data} />
}

function PartsOf({
  bikeId,
  bike,
  facts,
}: {
  bikeId: string
  bike: NonNullable<ReturnType<typeof useBike>['data']>
  facts: BikeParts
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const matching = useMatching()
  const [of, setOf] = useState<ChainOf>('drive')
  const [jointsFor, setJointsFor] = useState<'new' | 'on'>('new')
  const [school, setSchool] = useState<'strict' | 'by-feel'>('strict')
  const [pitches, setPitches] = useState<number | null>(null)
  const [halfLink, setHalfLink] = useState(false)
  const [chainId, setChainId] = useState<string | null>(null)
  const [joint, setJoint] = useState<string | null>(null)
  const [asked, setAsked] = useState('')
  const [sheet, setSheet] = useState<Sheet | null>(null)
  const askField = useRef<HTMLInputElement>(null)
  const keeping = useKeeping(bikeId)
  const { assumptions } = bike
  const match: BikeMatch =
    usePartsMatch(
      facts,
      {
        of,
        joints: jointsFor,
        school,
        ...(pitches === null ? {} : { pitches }),
        ...(chainId === null ? {} : { chainId }),
        ...(asked.trim() === '' ? {} : { ask: asked.trim() }),
      },
      matching.data,
      assumptions,
    ) ?? facts
  const chosenChain =
    match.chains.find(({ part }) => part.id === match.chainId) ?? (jointsFor === 'on' ? null : match.chains[0])
  const chosenJoint = match.joints.find((one) => jointKey(one) === joint) ?? match.joints[0]
  const chainCalled = matching.data?.chains.find((one) => one.id === match.chainId)?.name ?? chosenChain?.part.name
  const shownPitches = pitches ?? match.pitches

  const stepChain = (by: number): void => {
    const keys = match.chains.map(({ part }) => part.id)
    setChainId(stepped(keys, match.chainId, by))
    setJointsFor('new')
    setJoint(null)
  }
  const stepJoint = (by: number): void =>
    setJoint(stepped(match.joints.map(jointKey), chosenJoint && jointKey(chosenJoint), by))
  const stepPitches = (by: number): void => {
    if (shownPitches !== null) setPitches(Math.min(MOST, Math.max(FEWEST, shownPitches + by)))
  }
  const turn = (next: ChainOf): void => {
    setOf(next)
    setPitches(null)
    setChainId(null)
    setJoint(null)
    setJointsFor('new')
  }
  const chosenLines: JobLine[] =
    chosenChain && chosenJoint && shownPitches !== null && jointsFor === 'new'
      ? shoppingList(chosenChain.part as ChainModel, chosenJoint.part as JointCandidate, shownPitches).map((line) =>
          lineOf(line, chosenChain, chosenJoint),
        )
      : []
  const kept = facts.kept
  const keptLines: JobLine[] | undefined = kept?.lines.map((line) => ({ ...line, name: `${line.maker} ${line.name}` }))
  const lines = keptLines ?? chosenLines
  const differs =
    kept !== null &&
    chosenLines.length > 0 &&
    (kept.pitches !== shownPitches ||
      chosenLines.some(
        (line) => !kept.lines.some((one) => one.partId === line.partId && one.quantity === line.quantity),
      ))
  const toOrder: ToOrder[] = lines
    .filter((line) => missingOf(line) > 0)
    .map((line) => ({ partId: line.partId, name: line.name, quantity: missingOf(line) }))
  // A tandem's two chains are kept together: what is kept for the other one stays.
  const keep = (): void => {
    const others = of === 'timing' || facts.drive.timing !== null ? otherChains() : []
    if (chosenLines.length > 0) void keeping.keep(shownPitches, [...others, ...chosenLines])
  }
  const hasTiming = facts.drive.timing !== null
  const fixed = of === 'timing' || facts.drive.type !== 'derailleur'

  useCommands('parts', {
    chainUp: () => stepChain(-1),
    chainDown: () => stepChain(1),
    jointUp: () => stepJoint(-1),
    jointDown: () => stepJoint(1),
    fewer: () => stepPitches(halfLink ? -1 : -2),
    more: () => stepPitches(halfLink ? 1 : 2),
    ask: () => askField.current?.focus(),
    drive: () => setSheet('drive'),
    joint: () => setSheet('joint'),
    compare: match.chains.length > 1 ? () => setSheet('compare') : null,
    closeAgain: facts.presentChainId === null ? null : () => setJointsFor(jointsFor === 'on' ? 'new' : 'on'),
    keep,
    letGo: kept ? () => keeping.letGo(kept) : null,
    order: toOrder.length > 0 ? () => setSheet('order') : null,
    catalogue: () => navigate(`/catalogue?bike=${bikeId}`),
    otherChain: hasTiming ? () => turn(of === 'drive' ? 'timing' : 'drive') : null,
    halfLink: fixed ? () => setHalfLink(!halfLink) : null,
    record: () => navigate(`/bikes/${bikeId}`),
    back: () => navigate(`/bikes/${bikeId}`),
  })

  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr) 372px' },
        gridTemplateRows: { md: 'auto minmax(0, 1fr) auto' },
        height: { md: '100%' },
        columnGap: 2.5,
        px: 2.75,
        pt: 1.5,
      }}
    >
      <Stack
        direction="row"
        sx={{
          gridColumn: { md: '1 / 3' },
          justifyContent: 'space-between',
          alignItems: 'flex-start',
          gap: 2,
          pb: 1,
          flexWrap: { xs: 'wrap', md: 'nowrap' },
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="h1" noWrap>
            {bike.customer.name}
          </Typography>
          <Typography color="textSecondary" noWrap>
            <BikeLine bike={bike.summary} teeth />
            {facts.drive.system !== null && `, ${facts.drive.system.name}`}
          </Typography>
        </Box>
        <Stack direction="row" sx={{ gap: 1.5, flexShrink: 0, flexWrap: 'wrap' }}>
          <PartsTabs now="bike" bikeId={bikeId} />
          <KeyButton of="parts.drive" variant="outlined" onClick={() => setSheet('drive')} sx={{ px: 1.5 }}>
            {t('parts.drive')}
          </KeyButton>
        </Stack>
      </Stack>
      <Stack sx={{ minHeight: 0, pb: 1, gap: 0.75, gridRow: { md: 2 } }}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
          {hasTiming ? (
            <ToggleButtonGroup
              exclusive
              value={of}
              aria-label={t('parts.whichChain')}
              onChange={(_, next: ChainOf | null) => next && turn(next)}
            >
              {(['drive', 'timing'] as const).map((one) => (
                <ToggleButton key={one} value={one} sx={{ height: 40, px: 1.25, gap: 0.75, whiteSpace: 'nowrap' }}>
                  {t(`parts.chainOf.${one}`)} {one === 'timing' && <Cap of="parts.otherChain" />}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
          ) : (
            <Typography variant="h2" component="h2">
              {t('parts.chains')}
            </Typography>
          )}
          <Box sx={{ flex: 1 }} />
          <KeyButton
            of="parts.compare"
            variant="text"
            onClick={() => setSheet('compare')}
            disabled={match.chains.length < 2}
            sx={{ minHeight: 40, px: 0.75, minWidth: 0 }}
          >
            {!hasTiming && t('parts.compare.short')}
          </KeyButton>
          <TextField
            inputRef={askField}
            size="small"
            value={asked}
            placeholder={t('parts.ask')}
            onChange={(event) => setAsked(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return
              event.stopPropagation()
              setAsked('')
              askField.current?.blur()
            }}
            slotProps={{
              htmlInput: { 'aria-label': t('parts.ask'), title: t('parts.askHint') },
              input: { endAdornment: <Cap of="parts.ask" /> },
            }}
            sx={{ width: 160 }}
          />
        </Stack>
        <PartsList
          label={t('parts.chains')}
          parts={match.chains.map((one) => listedChain(one))}
          chosen={match.chainId}
          onChoose={(key) => {
            setChainId(key)
            setJointsFor('new')
            setJoint(null)
          }}
        />
        {match.chains.length === 0 && <Typography>{t('parts.nothing')}</Typography>}
        <Typography variant="body2" color="textSecondary">
          {t('parts.excluded', { count: match.chainsExcluded })}
        </Typography>
        {chosenChain && (
          <RulesOf
            title={t('parts.why', { part: chainName(chosenChain) })}
            answer={[ruledText(chosenChain, t), placeText(facts.drive, chosenChain, match.chains, t)]
              .filter((said) => said !== '')
              .join(' ')}
            rules={chosenChain.rules}
          />
        )}
      </Stack>
      <Stack sx={{ minHeight: 0, pb: 1, gap: 0.75, gridRow: { md: 2 } }}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1, minHeight: 40 }}>
          <Typography variant="h2" component="h2" noWrap sx={{ flex: 1 }}>
            {jointsFor === 'on'
              ? t('parts.jointsOn')
              : chainCalled !== undefined
                ? t('parts.joints', { chain: chainCalled })
                : t('parts.jointsNone')}
          </Typography>
          {facts.presentChainId !== null && of === 'drive' && (
            <KeyButton
              of="parts.closeAgain"
              variant="text"
              aria-pressed={jointsFor === 'on'}
              onClick={() => setJointsFor(jointsFor === 'on' ? 'new' : 'on')}
              sx={{ minHeight: 40, px: 0.75, whiteSpace: 'nowrap' }}
            >
              {t(jointsFor === 'on' ? 'parts.forNew' : 'parts.forOn')}
            </KeyButton>
          )}
          <KeyButton
            of="parts.joint"
            variant="text"
            onClick={() => setSheet('joint')}
            title={t('parts.joint.title')}
            sx={{ minHeight: 40, px: 0.75, whiteSpace: 'nowrap' }}
          >
            {t('parts.joint.short')}
          </KeyButton>
        </Stack>
        {jointsFor === 'on' && (
          <ToggleButtonGroup
            exclusive
            value={school}
            aria-label={t('parts.reuseSchool')}
            onChange={(_, next: 'strict' | 'by-feel' | null) => next && setSchool(next)}
            sx={{ '& button': { flex: 1, height: 40 } }}
          >
            <ToggleButton value="strict">{t('parts.school.strict')}</ToggleButton>
            <ToggleButton value="by-feel">{t('parts.school.by-feel')}</ToggleButton>
          </ToggleButtonGroup>
        )}
        <PartsList
          label={t('parts.jointsNone')}
          parts={match.joints.map((one) => listedJoint(one))}
          chosen={chosenJoint ? jointKey(chosenJoint) : null}
          onChoose={setJoint}
        />
        {chosenJoint && (
          <RulesOf
            title={t('parts.why', { part: jointName(chosenJoint, t) })}
            answer={ruledText(chosenJoint, t)}
            rules={chosenJoint.rules}
          />
        )}
      </Stack>
      <Box sx={{ gridColumn: { md: '1 / 3' }, gridRow: { md: 3 }, minWidth: 0 }}>
        <JobParts
          lines={lines}
          kept={kept}
          differs={differs}
          busy={keeping.busy}
          wrong={keeping.wrong}
          onKeep={keep}
          onLetGo={() => kept && void keeping.letGo(kept)}
          onOrder={() => setSheet('order')}
        />
      </Box>
      <Stack
        sx={{
          gridColumn: { md: 3 },
          gridRow: { md: '1 / 4' },
          minHeight: 0,
          overflow: { md: 'auto' },
          gap: 1.5,
          pb: 2,
        }}
      >
        <LengthPane
          facts={facts}
          of={of}
          assumed={assumptionsWith(assumptions)}
          pitches={shownPitches}
          worked={match.pitches}
          halfLink={halfLink}
          onHalfLink={setHalfLink}
          onPitches={setPitches}
        />
        {chosenChain && chosenJoint && shownPitches !== null && (
          <CutWords pitches={shownPitches} chain={chosenChain.part} joint={chosenJoint.part} />
        )}
        <WantedFacts parts={match} />
        <Typography variant="body2" color="textSecondary">
          {t('parts.caution')}
        </Typography>
      </Stack>
      {sheet === 'drive' && <DriveDialog bikeId={bikeId} parts={facts} onClose={() => setSheet(null)} />}
      {sheet === 'joint' && (
        <JointDialog
          bikeId={bikeId}
          parts={facts}
          joints={matching.data?.joints ?? []}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === 'compare' && chosenChain && (
        <CompareDialog chains={match.chains} first={chosenChain.part.id} onClose={() => setSheet(null)} />
      )}
      {sheet === 'order' && <OrderDialog wanted={toOrder} onClose={() => setSheet(null)} />}
    </Box>
  )

  function lineOf(
    line: ReturnType<typeof shoppingList>[number],
    chain: JudgedChain,
    { part: jointPart }: JudgedJoint,
  ): JobLine {
    const model = line.partId === chain.part.id || jointPart.model === 're-press' ? chain.part : jointPart.model
    return {
      ...line,
      name: `${model.maker} ${model.name}`,
      price: model.price,
      here: Math.min(line.quantity, model.stock),
      onOrder: 0,
    }
  }

  /** Kept lines of a tandem's other chain: those that are not of the places chosen for now. */
  function otherChains(): JobLine[] {
    const now = new Set(match.chains.filter(({ outcome }) => outcome !== 'does-not-fit').map(({ part }) => part.id))
    const joints = new Set(
      match.joints.flatMap(({ part, outcome }) =>
        part.model === 're-press' || outcome === 'does-not-fit' ? [] : [part.model.id],
      ),
    )
    return (keptLines ?? []).filter(({ partId }) => !now.has(partId) && !joints.has(partId))
  }

  function listedChain(one: JudgedChain): ListedPart {
    return {
      key: one.part.id,
      name: chainName(one),
      outcome: one.outcome,
      note: against(one.rules, t) || (one.part.level ?? ''),
      stock: one.part.stock,
      price: one.part.price,
    }
  }

  function listedJoint(one: JudgedJoint): ListedPart {
    const { part, outcome, habit, rules } = one
    const onNow = part.model !== 're-press' && part.closings !== 0
    return {
      key: jointKey(one),
      name: onNow ? t('parts.onNow', { joint: jointName(one, t) }) : jointName(one, t),
      outcome,
      note:
        outcome === 'fits' && habit && !onNow
          ? habit.linksAYear === null
            ? t('parts.habitFirm')
            : t('parts.habit', { count: habit.linksAYear, cost: priceText(habit.cost, t) })
          : onNow && part.closings !== null
            ? t('parts.closedTimes', { count: part.closings })
            : against(rules, t),
      stock: part.model === 're-press' || onNow ? null : part.model.stock,
      price: part.model === 're-press' || onNow ? 0 : part.model.price,
    }
  }
}

/** The rules that speak against a part, by name; what excludes it before what is only to be minded. */
function against(rules: JudgedChain['rules'], t: TFunction): string {
  const worst = (['does-not-fit', 'not-known', 'caution'] as const).find((outcome) =>
    rules.some((rule) => rule.outcome === outcome),
  )
  return rules
    .filter(({ outcome }) => outcome === worst)
    .map(({ rule }) => saidOf(t, 'parts.rule', rule))
    .join(', ')
}

/** Facts that are not known, together, and what each would decide. */
function WantedFacts({ parts }: { parts: BikeMatch }) {
  const { t } = useTranslation()
  if (parts.wanted.length === 0) return null
  return (
    <Box component="section" aria-label={t('parts.wanted')}>
      <Typography variant="h3" component="h3" color="textSecondary">
        {t('parts.wanted')}
      </Typography>
      {parts.wanted.map(({ fact, rules }) => (
        <Typography key={fact} variant="body2">
          <b>{t(`parts.fact.${fact}`)}</b>{' '}
          {t('parts.decides', { rules: rules.map((rule) => saidOf(t, 'parts.rule', rule)).join(', ') })}
        </Typography>
      ))}
    </Box>
  )
}
