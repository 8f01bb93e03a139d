import { Box, ButtonBase, Typography } from '@mui/material'
import { useRef } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import type { Instrument } from '@pelrin/contract'
import { InstrumentGlyph } from '../../pieces/InstrumentGlyph.tsx'
import { ink } from '../../theme/theme.ts'

/** The instruments as they hang on the wall: one is taken in hand before anything is read. */
export function InstrumentWall({
  instruments,
  chosen,
  onChoose,
  onDone,
}: {
  instruments: readonly Instrument[]
  chosen: string | undefined
  onChoose: (id: string) => void
  /** Chosen with the keyboard: back to what is being typed. */
  onDone: () => void
}) {
  const { t } = useTranslation()
  const wall = useRef<HTMLDivElement>(null)
  useHotkeys('alt+i', () => wall.current?.querySelector<HTMLElement>('[aria-checked="true"]')?.focus(), {
    enableOnFormTags: true,
    preventDefault: true,
  })
  const step = (by: number): void => {
    const at = instruments.findIndex((one) => one.id === chosen)
    const next = instruments[(at + by + instruments.length) % instruments.length]
    if (!next) return
    onChoose(next.id)
    wall.current?.querySelector<HTMLElement>(`[data-instrument="${next.id}"]`)?.focus()
  }
  return (
    <Box
      ref={wall}
      role="radiogroup"
      aria-label={`${t('measure.instrument')}, Alt I`}
      onKeyDown={(event) => {
        const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
        if (by !== undefined) {
          event.preventDefault()
          step(by)
        } else if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault()
          onDone()
        }
      }}
      sx={{
        gridColumn: '1 / -1',
        display: 'flex',
        overflowX: 'auto',
        borderBottom: `1.5px solid ${ink('edge')}`,
        bgcolor: ink('blade'),
      }}
    >
      {instruments.map((instrument) => {
        const on = instrument.id === chosen
        return (
          <ButtonBase
            key={instrument.id}
            role="radio"
            aria-checked={on}
            data-instrument={instrument.id}
            tabIndex={on ? 0 : -1}
            onClick={() => {
              onChoose(instrument.id)
              onDone()
            }}
            sx={{
              flex: '1 0 112px',
              minHeight: 66,
              px: 0.75,
              py: 0.5,
              flexDirection: 'column',
              gap: 0.25,
              color: on ? 'primary.contrastText' : ink('ink'),
              bgcolor: on ? ink('steel') : 'transparent',
              borderRight: `1px solid ${ink('edge')}`,
              opacity: instrument.standing === 'out-of-use' ? 0.5 : 1,
            }}
          >
            <InstrumentGlyph kind={instrument.kind} width={38} />
            <Typography
              component="span"
              sx={{ fontSize: 'size.cap', fontWeight: 600, lineHeight: 1.1, textAlign: 'center' }}
            >
              {instrument.name}
            </Typography>
          </ButtonBase>
        )
      })}
    </Box>
  )
}
