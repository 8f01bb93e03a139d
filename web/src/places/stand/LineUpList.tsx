import { Box, Stack, Typography } from '@mui/material'
import { closestCenter, DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core'
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { useTranslation } from 'react-i18next'
import type { Visit } from '@pelrin/contract'
import { clock, today } from '../../messages/format.ts'
import { dragWords } from '../../pieces/dragWords.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { Plate } from '../../pieces/Plate.tsx'
import { lookToday } from '../../pieces/verdictLook.ts'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'

/** Today's bikes in their order: when each is promised, why it is here, how its chain stands. */
export function LineUpList({
  visits,
  chosenId,
  onChoose,
  onMove,
}: {
  visits: readonly Visit[]
  chosenId: string | undefined
  onChoose: (bikeId: string) => void
  onMove: (visit: Visit, before: Visit | null) => void
}) {
  const { t } = useTranslation()
  // A drag begins after a little way, so that a thumb that slips still chooses.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 12 } }))
  const dropped = ({ active, over }: DragEndEvent): void => {
    const from = visits.findIndex((visit) => visit.id === active.id)
    const to = visits.findIndex((visit) => visit.id === over?.id)
    const moved = visits[from]
    if (!moved || to < 0 || from === to) return
    onMove(moved, visits[to > from ? to + 1 : to] ?? null)
  }
  return (
    <Stack
      component="section"
      aria-label={t('stand.lineUp')}
      sx={{
        // On a phone the bike on the stand comes first.
        order: { xs: 1, sm: 0 },
        gridRow: { sm: '1 / 3', lg: 'auto' },
        borderRight: { sm: 1 },
        borderColor: { sm: 'divider' },
        overflow: { md: 'auto' },
      }}
    >
      <Typography variant="h3" component="h2" color="textSecondary" sx={{ px: 2.25, py: 1.25 }}>
        {t('stand.inToday', { count: visits.length })}
      </Typography>
      {visits.length === 0 && (
        <Typography color="textSecondary" sx={{ px: 2.25 }}>
          {t('stand.nobody')}
        </Typography>
      )}
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={dropped}
        accessibility={dragWords(t('stand.moveByKeys'))}
      >
        <SortableContext items={visits.map((visit) => visit.id)} strategy={verticalListSortingStrategy}>
          <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {visits.map((visit) => (
              <VisitRow
                key={visit.id}
                visit={visit}
                chosen={visit.bike.id === chosenId}
                onChoose={() => onChoose(visit.bike.id)}
              />
            ))}
          </Box>
        </SortableContext>
      </DndContext>
    </Stack>
  )
}

function VisitRow({ visit, chosen, onChoose }: { visit: Visit; chosen: boolean; onChoose: () => void }) {
  const { t } = useTranslation()
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: visit.id })
  const { bike } = visit
  const look = lookToday(bike, today())
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? undefined }}
      sx={{ position: 'relative', zIndex: isDragging ? 2 : 'auto' }}
    >
      <Box
        component="button"
        type="button"
        onClick={onChoose}
        {...listeners}
        aria-current={chosen ? 'true' : undefined}
        sx={{
          font: 'inherit',
          color: 'inherit',
          textAlign: 'left',
          width: '100%',
          minHeight: 78,
          display: 'grid',
          gridTemplateColumns: '46px minmax(0, 1fr) auto',
          alignItems: 'center',
          columnGap: 1.25,
          px: 2.25,
          py: 1,
          border: 0,
          borderTop: 1,
          borderColor: 'divider',
          boxShadow: chosen ? `inset 5px 0 ${ink('steel')}` : 'none',
          bgcolor: chosen ? 'background.paper' : isDragging ? ink('blade') : 'transparent',
          cursor: 'pointer',
          touchAction: 'pan-y',
          '&:focus-visible': { outlineOffset: -3 },
        }}
      >
        <Box component="span" sx={{ gridRow: '1 / 4', fontWeight: 600, color: 'text.secondary' }}>
          {visit.promisedAt === null ? '–' : clock(visit.promisedAt)}
        </Box>
        <Stack component="span" direction="row" sx={{ gridColumn: '2 / 4', alignItems: 'center', gap: 1, minWidth: 0 }}>
          <Typography
            component="span"
            noWrap
            sx={{
              flex: 1,
              fontWeight: 700,
              fontSize: 'size.lead',
              color: visit.state === 'done' ? 'text.secondary' : 'inherit',
            }}
          >
            {bike.customer.name}
          </Typography>
          <Plate
            shape={look.plate}
            colour={look.colour}
            height={16}
            title={t(look.overdue ? 'overdue' : `word.${bike.standing.word}`)}
          />
        </Stack>
        <Typography component="span" noWrap variant="body2" color="textSecondary" sx={{ gridColumn: '2 / 4' }}>
          <BikeLine bike={bike} />
        </Typography>
        <Typography component="span" variant="body2" sx={{ fontWeight: visit.here ? 600 : 400, lineHeight: 1.2 }}>
          {visit.state === 'done'
            ? t('stand.doneState')
            : visit.state === 'on-stand' && !visit.here
              ? t('stand.other')
              : visit.here && visit.onStandSince
                ? t('stand.since', { time: clock(visit.onStandSince) })
                : visit.reason === ''
                  ? t('stand.walkIn')
                  : visit.reason}
        </Typography>
        <Box component="span" sx={{ gridColumn: '3 / 4' }}>
          <WearRule size="small" marks={bike.marks} limit={bike.limit} colour={look.colour} />
        </Box>
      </Box>
    </Box>
  )
}
