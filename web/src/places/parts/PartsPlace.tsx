import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { assumptionsWith } from '@pelrin/core'
import type { BikeParts, JudgedChain } from '@pelrin/contract'
import { useBike, useBikeParts } from '../../api/queries.ts'
import { useLetterKeys } from '../../keys/typing.tsx'
import { number } from '../../messages/format.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { CutWords } from './CutWords.tsx'
import { DriveDialog } from './DriveDialog.tsx'
import { LengthPane } from './LengthPane.tsx'
import { chainName, jointKey, jointName, priceText } from './partLook.ts'
import { PartsList, type ListedPart } from './PartsList.tsx'
import { RulesOf } from './RulesOf.tsx'

const FEWEST = 20
const MOST = 400

/** With what, how long, and do we have it: chains, joints and the length for one bike. */
export function PartsPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const bike = useBike(id)
  const [pitches, setPitches] = useState<number | null>(null)
  const [chainId, setChainId] = useState<string | null>(null)
  const [joint, setJoint] = useState<string | null>(null)
  const [asked, setAsked] = useState('')
  const [editing, setEditing] = useState(false)
  const askField = useRef<HTMLInputElement>(null)
  const found = useBikeParts(id, {
    ...(pitches === null ? {} : { pitches: String(pitches) }),
    ...(chainId === null ? {} : { chain: chainId }),
    ...(asked.trim() === '' ? {} : { ask: asked.trim() }),
  })
  const parts = found.data
  useEffect(() => {
    document.title = `${t('place.parts')} – ${t('app.name')}`
  }, [t])
  const chosenChain = parts?.chains.find(({ part }) => part.id === parts.chainId)
  const chosenJoint = parts?.joints.find((one) => jointKey(one) === joint) ?? parts?.joints[0]

  const walk = useCallback((keys: readonly string[], from: string | null | undefined, by: number): string | null => {
    const at = keys.indexOf(from ?? '')
    return keys[Math.min(keys.length - 1, Math.max(0, at + by))] ?? null
  }, [])
  const stepChain = (by: number): void => {
    if (!parts) return
    setChainId(
      walk(
        parts.chains.map(({ part }) => part.id),
        parts.chainId,
        by,
      ),
    )
    setJoint(null)
  }
  const stepJoint = (by: number): void => {
    if (parts) setJoint(walk(parts.joints.map(jointKey), chosenJoint && jointKey(chosenJoint), by))
  }
  const stepPitches = (by: number): void => {
    const now = pitches ?? parts?.pitches
    if (now != null) setPitches(Math.min(MOST, Math.max(FEWEST, now + by)))
  }
  const inTheWay = editing
  useHotkeys('arrowdown', () => stepChain(1), { preventDefault: true, enabled: !inTheWay }, [parts, chainId])
  useHotkeys('arrowup', () => stepChain(-1), { preventDefault: true, enabled: !inTheWay }, [parts, chainId])
  useHotkeys('shift+arrowdown', () => stepJoint(1), { preventDefault: true, enabled: !inTheWay }, [parts, joint])
  useHotkeys('shift+arrowup', () => stepJoint(-1), { preventDefault: true, enabled: !inTheWay }, [parts, joint])
  useHotkeys('arrowleft', () => stepPitches(-2), { preventDefault: true, enabled: !inTheWay }, [parts, pitches])
  useHotkeys('arrowright', () => stepPitches(2), { preventDefault: true, enabled: !inTheWay }, [parts, pitches])
  useHotkeys('escape', () => void navigate(`/bikes/${id}`), { enabled: !inTheWay }, [id, navigate])
  useLetterKeys(
    useMemo(
      () => ({
        a: { run: () => askField.current?.focus() },
        e: { run: () => setEditing(true) },
        b: { run: () => void navigate(`/bikes/${id}`) },
      }),
      [id, navigate],
    ),
  )

  if (bike.isPending || found.isPending) return <Loading />
  if (!bike.data || !parts)
    return (
      <Failure
        error={bike.error ?? found.error}
        again={() => {
          void bike.refetch()
          void found.refetch()
        }}
      />
    )
  const shownPitches = pitches ?? parts.pitches
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr) 372px' },
        gridTemplateRows: { md: 'auto minmax(0, 1fr)' },
        height: { md: '100%' },
        columnGap: 2.5,
        px: 2.75,
        pt: 1.5,
      }}
    >
      <Stack
        direction="row"
        sx={{ gridColumn: { md: '1 / 3' }, justifyContent: 'space-between', alignItems: 'flex-start', gap: 2, pb: 1 }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="h1">{bike.data.customer.name}</Typography>
          <Typography color="textSecondary">
            <BikeLine bike={bike.data.summary} teeth />
            {parts.drive.system !== null && `, ${parts.drive.system.name}`}
          </Typography>
        </Box>
        <Stack direction="row" sx={{ gap: 1, flexShrink: 0 }}>
          <Button variant="outlined" onClick={() => setEditing(true)} sx={{ minHeight: 48, gap: 1 }}>
            {t('parts.drive')} <KeyCap>E</KeyCap>
          </Button>
        </Stack>
      </Stack>
      <Stack sx={{ minHeight: 0, pb: 2, gap: 1, gridRow: { md: 2 } }}>
        <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 1.5 }}>
          <Typography variant="h2" component="h2">
            {t('parts.chains')}
          </Typography>
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
              input: { endAdornment: <KeyCap>A</KeyCap> },
            }}
            sx={{ width: 190 }}
          />
        </Stack>
        <PartsList
          label={t('parts.chains')}
          parts={parts.chains.map((one) => listedChain(one))}
          chosen={parts.chainId}
          onChoose={(key) => {
            setChainId(key)
            setJoint(null)
          }}
        />
        {parts.chains.length === 0 && <Typography>{t('parts.nothing')}</Typography>}
        <Typography variant="body2" color="textSecondary">
          {t('parts.excluded', { count: parts.chainsExcluded })}
        </Typography>
        {chosenChain && <RulesOf title={t('parts.why', { part: chainName(chosenChain) })} rules={chosenChain.rules} />}
      </Stack>
      <Stack sx={{ minHeight: 0, pb: 2, gap: 1, gridRow: { md: 2 } }}>
        <Typography variant="h2" component="h2" noWrap sx={{ minHeight: 40, lineHeight: '40px' }}>
          {chosenChain ? t('parts.joints', { chain: chosenChain.part.name }) : t('parts.jointsNone')}
        </Typography>
        <PartsList
          label={t('parts.jointsNone')}
          parts={parts.joints.map((one): ListedPart => ({
            key: jointKey(one),
            name: jointName(one, t),
            outcome: one.outcome,
            note:
              one.outcome === 'fits' && one.habit
                ? one.habit.linksAYear === null
                  ? t('parts.habitFirm')
                  : t('parts.habit', { count: one.habit.linksAYear, cost: priceText(one.habit.cost, t) })
                : against(one.rules, t),
            stock: one.part.model === 're-press' ? null : one.part.model.stock,
            price: one.part.model === 're-press' ? 0 : one.part.model.price,
          }))}
          chosen={chosenJoint ? jointKey(chosenJoint) : null}
          onChoose={setJoint}
        />
        {chosenJoint && (
          <RulesOf title={t('parts.why', { part: jointName(chosenJoint, t) })} rules={chosenJoint.rules} />
        )}
      </Stack>
      <Stack
        sx={{
          gridColumn: { md: 3 },
          gridRow: { md: '1 / 3' },
          minHeight: 0,
          overflow: { md: 'auto' },
          gap: 1.5,
          pb: 2,
        }}
      >
        <LengthPane
          parts={parts}
          assumed={assumptionsWith(bike.data.verdictInput?.assumptions)}
          pitches={shownPitches}
          onPitches={setPitches}
        />
        {chosenChain && chosenJoint && shownPitches !== null && (
          <CutWords pitches={shownPitches} chain={chosenChain.part} joint={chosenJoint.part} />
        )}
        <Wanted parts={parts} />
        {chosenChain && chosenJoint && (
          <Typography sx={{ fontWeight: 600 }}>
            {chosenChain.part.jointInBox !== 'none' && `${t(`parts.inBox.${chosenChain.part.jointInBox}`)} `}
            {t('parts.cost', {
              cost: number(
                ((chosenChain.part.price ?? 0) +
                  (chosenChain.part.jointInBox === 'none' && chosenJoint.part.model !== 're-press'
                    ? (chosenJoint.part.model.price ?? 0)
                    : 0)) /
                  100,
                2,
              ),
            })}
          </Typography>
        )}
        <Typography variant="body2" color="textSecondary">
          {t('parts.caution')}
        </Typography>
      </Stack>
      {editing && <DriveDialog bikeId={id} parts={parts} onClose={() => setEditing(false)} />}
    </Box>
  )

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
}

/** The rules that speak against a part, by name; what excludes it before what is only to be minded. */
function against(rules: JudgedChain['rules'], t: (key: string) => string): string {
  const worst = (['does-not-fit', 'not-known', 'caution'] as const).find((outcome) =>
    rules.some((rule) => rule.outcome === outcome),
  )
  return rules
    .filter(({ outcome }) => outcome === worst)
    .map(({ rule }) => t(`parts.rule.${rule}`))
    .join(', ')
}

/** Facts that are not known, together, and what each would decide. */
function Wanted({ parts }: { parts: BikeParts }) {
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
          {t('parts.decides', { rules: rules.map((rule) => t(`parts.rule.${rule}`)).join(', ') })}
        </Typography>
      ))}
    </Box>
  )
}
