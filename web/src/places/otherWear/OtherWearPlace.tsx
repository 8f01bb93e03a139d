import { Box, Stack, Typography } from '@mui/material'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { v7 } from 'uuid'
import { parseThickness, wearItem, type WearItemId } from '@pelrin/core'
import { endpoints, type BikeRecord, type OtherWear } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useOtherWear } from '../../api/queries.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { OfBike } from '../../pieces/OfBike.tsx'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { useChainForecast } from '../../pieces/useChainForecast.ts'
import { ItemRow } from './ItemRow.tsx'
import { chosenBy, looksOf, type Line, type Pass } from './passState.ts'
import { Refused } from '../../forms/Refused.tsx'
import { useCommands } from '../../keys/useCommands.ts'
import { unitOf } from '../../messages/format.ts'

/** Everything else that wears on a bike, looked over in one pass. */
export function OtherWearPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const wear = useOtherWear(id)
  return (
    <OfBike bikeId={id} title={t('otherWear.title')} needs={[wear]}>
      {(record) => wear.data && <OnePass record={record} wear={wear.data} />}
    </OfBike>
  )
}

function OnePass({ record, wear }: { record: BikeRecord; wear: OtherWear }) {
  const bikeId = record.summary.id
  const unit = unitOf(record)
  const { costs } = useChainForecast(record, true)
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const { wrong, setWrong, busy, write } = useBikeWrite(bikeId, endpoints.checkWear.access)
  const [pass, setPass] = useState<Pass>({})
  const [at, setAt] = useState(0)
  const [back, setBack] = useState<string | null>(null)
  /** What was sent last, for the fields a refusal names. */
  const [sent, setSent] = useState<readonly WearItemId[]>([])
  const saveButton = useRef<HTMLButtonElement>(null)
  const items = wear.items.map(({ item }) => item)
  // Behind the last is the button that writes it down.
  const current = items[at]
  useEffect(() => {
    if (at === items.length) saveButton.current?.focus()
  }, [at, items.length])
  const looks = looksOf(items, pass, v7)
  const move = (to: number): void => {
    setAt(Math.min(items.length, Math.max(0, to)))
  }
  const say = (item: WearItemId, line: Line): void => {
    setPass((before) => ({ ...before, [item]: { ...before[item], ...line } }))
    setWrong(null)
  }
  const byDigit = (digit: number): void => {
    const line = current && chosenBy(current, digit)
    if (!current || !line) return
    say(current, line)
    move(at + 1)
  }
  const save = async (): Promise<void> => {
    if (busy || looks.length === 0) return
    // A thickness that is none is told before anything is sent.
    const bad = looks.findIndex(({ typed }) => typed !== null && !parseThickness(typed).ok)
    const read = bad < 0 ? null : parseThickness(looks[bad]!.typed ?? '')
    setSent(looks.map(({ item }) => item))
    if (read && !read.ok) {
      setWrong({
        code: read.problem,
        sentence: t(`problems.${read.problem}`),
        fields: { [`checks.${bad}.typed`]: t(`problems.${read.problem}`) },
      })
      setAt(items.indexOf(looks[bad]!.item))
      return
    }
    const body = { occurredAt: new Date().toISOString(), checks: looks }
    if (await write(() => ask(endpoints.checkWear, { params: { id: bikeId }, key: v7(), body }))) {
      setPass({})
      setAt(0)
      tell(t('otherWear.saved'))
    }
  }
  useCommands('otherWear', {
    pick: byDigit,
    up: () => move(at - 1),
    down: () => move(at + 1),
    leave: () => move(at + 1),
    renewed: current ? () => say(current, { renewed: !(pass[current]?.renewed ?? false) }) : null,
    save,
    record: () => navigate(`/bikes/${bikeId}`),
    back: () => navigate(`/bikes/${bikeId}`),
  })
  const wrongAt = (item: WearItemId, field: string): string | undefined =>
    wrong?.fields[`checks.${sent.indexOf(item)}.${field}`]
  const kind = current && wearItem(current).kind
  return (
    <>
      <Box
        component="ol"
        aria-label={t('otherWear.title')}
        sx={{ listStyle: 'none', m: 0, p: 0, flex: 1, minHeight: 0, overflow: { md: 'auto' } }}
      >
        {wear.items.map((now, i) => (
          <ItemRow
            key={now.item}
            now={now}
            line={pass[now.item] ?? {}}
            chosen={i === at}
            unit={unit}
            under={now.item === 'cassette' ? (costs?.together ?? null) : null}
            wrong={{
              typed: wrongAt(now.item, 'typed'),
              minimum: wrongAt(now.item, 'minimumTyped'),
              fitted: wrongAt(now.item, 'fitted.partId'),
            }}
            onChoose={() => setAt(i)}
            onSay={(line) => say(now.item, line)}
            onBack={setBack}
          />
        ))}
      </Box>
      <Stack
        direction="row"
        sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap', py: 1, borderTop: 1, borderColor: 'divider' }}
      >
        <Box sx={{ flex: '1 1 380px' }}>
          <Typography>{kind ? t(`otherWear.how.${kind}`) : ''}</Typography>
          <Typography variant="body2" color="textSecondary">
            {t('otherWear.caution')}
          </Typography>
          <Refused>{wrong?.sentence}</Refused>
        </Box>
        <KeyButton
          of="otherWear.save"
          ref={saveButton}
          variant="contained"
          disabled={busy || looks.length === 0}
          onClick={() => void save()}
          sx={{ minHeight: 56, px: 3 }}
        >
          {t('otherWear.save', { count: looks.length })}
        </KeyButton>
      </Stack>
      {back !== null && (
        <ReasonDialog
          access={endpoints.withdrawWearCheck.access}
          title={t('otherWear.backTitle')}
          go={t('otherWear.back')}
          onClose={() => setBack(null)}
          onReason={async (reason) => {
            const id = v7()
            await ask(endpoints.withdrawWearCheck, { params: { id: back }, key: id, body: { id, reason } })
            await write(() => Promise.resolve(true))
          }}
        />
      )}
    </>
  )
}
