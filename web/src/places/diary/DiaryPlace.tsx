import { Box, Stack, Typography } from '@mui/material'
import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type Booking, type Diary, type DueVisit } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useDiary } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { day as dayWord } from '../../messages/format.ts'
import { dragWords } from '../../pieces/dragWords.ts'
import { Beside } from '../../pieces/Beside.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useInAddress } from '../../pieces/useInAddress.ts'
import { useTitle } from '../../pieces/useTitle.ts'
import { RemindDialog } from '../messages/RemindDialog.tsx'
import { remindable, remindableAtHome } from '../messages/remindable.ts'
import { AtHome } from './AtHome.tsx'
import { DayPane, FeedsButton } from './DayPane.tsx'
import { DueList, keyOf } from './DueList.tsx'
import { FeedsDialog } from './FeedsDialog.tsx'
import { LoadStrip } from './LoadStrip.tsx'
import { ShopsOwn } from './ShopsOwn.tsx'
import { Refused } from '../../forms/Refused.tsx'
import { useCommands } from '../../keys/useCommands.ts'

/** What is due and booked in the weeks ahead, day by day against what a day takes. */
export function DiaryPlace() {
  const { t } = useTranslation()
  const diary = useDiary()
  useTitle(t('diary.title'))
  if (diary.isPending) return <Loading />
  if (!diary.data) return <Failure error={diary.error} again={() => void diary.refetch()} />
  return <Weeks diary={diary.data} />
}

function Weeks({ diary }: { diary: Diary }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const [chosenKey, setChosenKey] = useState<string | null>(null)
  const [chosenDay, setChosenDay] = useInAddress('day')
  const { wrong, busy, write: send } = useWrite({ access: endpoints.book.access, stale: [keys.diary, keys.lineUp] })
  const [feeds, setFeeds] = useState(false)
  const [reminding, setReminding] = useState<'visits' | 'home' | null>(null)
  // A drag begins after a little way, so that a thumb that slips still chooses.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 12 } }))
  const { visits, days, bookings } = diary
  const chosen = visits.find((visit) => keyOf(visit) === chosenKey) ?? visits[0]
  const day = days.find((one) => one.day === chosenDay) ?? days.find((one) => one.day === chosen?.day) ?? days[0]!
  const ofDay = useMemo(() => bookings.filter((booking) => booking.day === day.day), [bookings, day.day])

  const write = async (job: () => Promise<unknown>, said: string): Promise<void> => {
    if (!busy && (await send(() => job().then(() => true)))) tell(said)
  }
  const book = (visit: DueVisit | undefined, on: string): void => {
    if (!visit) return
    const body = {
      day: on,
      bikes: visit.bikes.map(({ bike, items, minutes }) => ({
        id: v7(),
        bikeId: bike.id,
        reason: [...new Set(items.map(({ kind }) => t(`diary.kind.${kind}`)))].join(', '),
        minutes,
      })),
    }
    const next = visits[visits.indexOf(visit) + 1]
    void write(() => ask(endpoints.book, { key: v7(), body }), t('diary.bookedOn', { day: dayWord(on) })).then(() => {
      setChosenKey(next ? keyOf(next) : null)
      setChosenDay(on)
    })
  }
  const move = (booking: Booking, change: { promisedAt?: string | null; calledOff?: true }): void =>
    void write(
      () => ask(endpoints.moveBooking, { params: { id: booking.id }, version: booking.version, body: change }),
      change.calledOff ? t('diary.calledOff') : t('diary.bookedOn', { day: dayWord(booking.day) }),
    )
  const choose = (visit: DueVisit): void => {
    setChosenKey(keyOf(visit))
    setChosenDay(visit.day)
  }
  const step = (by: number): void => {
    const at = chosen ? visits.indexOf(chosen) : -1
    const to = visits[Math.min(visits.length - 1, Math.max(0, at + by))]
    if (to) choose(to)
  }
  const stepDay = (by: number): void => {
    const to = days[Math.min(days.length - 1, Math.max(0, days.indexOf(day) + by))]
    if (to) setChosenDay(to.day)
  }
  useCommands('diary', {
    dayBefore: () => stepDay(-1),
    dayAfter: () => stepDay(1),
    up: () => step(-1),
    down: () => step(1),
    bookSuits: chosen ? () => book(chosen, chosen.day) : null,
    book: () => book(chosen, day.day),
    remind: visits.length > 0 ? () => setReminding('visits') : null,
    messages: () => navigate('/messages'),
    calendar: () => setFeeds(true),
  })
  return (
    <Stack sx={{ height: { md: '100%' }, px: 2.75, pt: 1.5, gap: 1 }}>
      <DndContext
        sensors={sensors}
        accessibility={dragWords(t('diary.bookByKeys'))}
        onDragEnd={({ active, over }) => {
          const visit = visits.find((one) => keyOf(one) === active.id)
          if (visit && over) book(visit, String(over.id))
        }}
      >
        <Stack direction="row" sx={{ flexWrap: 'wrap', '& > *': { flexShrink: 0 }, alignItems: 'center', gap: 2 }}>
          <Typography variant="h1" sx={{ flex: 1 }}>
            {t('diary.title')}
          </Typography>
          <KeyButton
            of="diary.remind"
            variant="contained"
            disabled={visits.length === 0}
            onClick={() => setReminding('visits')}
          >
            {t('reminding.remind')}
          </KeyButton>
          <KeyButton of="diary.messages" component={Link} to="/messages" variant="outlined">
            {t('reminding.short')}
          </KeyButton>
          <FeedsButton onOpen={() => setFeeds(true)} />
        </Stack>
        <LoadStrip days={days} chosen={day.day} onChoose={setChosenDay} />
        <Beside
          width={420}
          beside={
            <>
              <DayPane
                key={day.day}
                day={day}
                bookings={ofDay}
                busy={busy}
                onMove={move}
                onClose={(reason) =>
                  void write(
                    () => ask(endpoints.setClosed, { key: v7(), body: { days: [day.day], reason } }),
                    dayWord(day.day),
                  )
                }
              />
              <AtHome bikes={diary.atHome} onRemind={() => setReminding('home')} />
              <ShopsOwn items={diary.ofShop} />
            </>
          }
        >
          <Box sx={{ pb: 2 }}>
            <Typography variant="h3" component="h2" color="textSecondary">
              {t('diary.due', { count: visits.length })}
            </Typography>
            <Typography variant="body2" color="textSecondary" sx={{ pb: 0.5 }}>
              {t('diary.keysNote')}
            </Typography>
            <Refused>{wrong?.sentence}</Refused>
            <DueList
              visits={visits}
              chosen={chosen}
              busy={busy}
              onChoose={choose}
              onBook={(visit) => book(visit, visit.day)}
            />
            {diary.more > 0 && <Typography>{t('diary.more', { count: diary.more })}</Typography>}
          </Box>
        </Beside>
      </DndContext>
      {reminding !== null && (
        <RemindDialog
          asked={reminding === 'home' ? remindableAtHome(diary.atHome) : visits.map(remindable)}
          onClose={() => setReminding(null)}
        />
      )}
      {feeds && <FeedsDialog onClose={() => setFeeds(false)} />}
    </Stack>
  )
}
