import { Autocomplete, Box, InputAdornment, Stack, TextField, Typography } from '@mui/material'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { BikeSummary, CustomerLine } from '@pelrin/contract'
import { useFind, useFindCustomers } from '../api/queries.ts'
import { useFinderOpener } from '../keys/typing.tsx'
import { today } from '../messages/format.ts'
import { BikeLine } from '../pieces/BikeLine.tsx'
import { KeyCap } from '../pieces/KeyCap.tsx'
import { Plate } from '../pieces/Plate.tsx'
import { lookToday } from '../pieces/verdictLook.ts'
import { WearRule } from '../pieces/WearRule.tsx'
import { scannedTag } from '../places/tags/scanned.ts'
import { usePutOnStand } from './usePutOnStand.ts'

/** A bike or a customer with the text it was found by; with neither, a bike is taken in for that text. */
interface Found {
  readonly bike: BikeSummary | null
  /** Who was found, where it is no bike. */
  readonly customer: CustomerLine | null
  readonly answers: string
}

/** So many customers are offered beside bikes. */
const CUSTOMERS = 3

/** Finds a bike from anywhere and puts it on the stand. */
export function Finder() {
  const { t } = useTranslation()
  const [text, setText] = useState('')
  const [open, setOpen] = useState(false)
  const input = useRef<HTMLInputElement>(null)
  const found = useFind(text)
  const customers = useFindCustomers(text)
  const fresh = found.data?.text === text
  const options = useMemo((): Found[] => {
    if (!found.data || text.trim() === '') return []
    const { bikes, text: answers } = found.data
    return [
      ...bikes.map((bike) => ({ bike, customer: null, answers })),
      ...(customers.data ?? []).slice(0, CUSTOMERS).map((customer) => ({ bike: null, customer, answers })),
      ...(fresh ? [{ bike: null, customer: null, answers }] : []),
    ]
  }, [found.data, customers.data, text, fresh])
  const putOnStand = usePutOnStand()
  const navigate = useNavigate()
  /** Enter was pressed before the answer to what was typed had come. */
  const entered = useRef<string | null>(null)

  const openWith = useCallback((typed: string) => {
    setText(typed)
    setOpen(true)
    input.current?.focus()
  }, [])
  useFinderOpener(openWith)
  useHotkeys('/', () => openWith(''), { useKey: true, preventDefault: true })

  const choose = useCallback(
    ({ bike, customer, answers }: Found) => {
      entered.current = null
      setText('')
      setOpen(false)
      input.current?.blur()
      if (bike) putOnStand(bike.id)
      else if (customer) void navigate(`/customers/${customer.id}`)
      else void navigate(`/new-bike?${new URLSearchParams({ for: answers.trim() })}`)
    },
    [putOnStand, navigate],
  )

  useEffect(() => {
    const first = options[0]
    if (entered.current !== null && entered.current === text && fresh && first) choose(first)
  }, [options, fresh, text, choose])

  return (
    <Autocomplete<Found>
      sx={{ width: 'min(520px, 44vw)' }}
      size="small"
      open={open && text.trim() !== ''}
      onOpen={() => setOpen(true)}
      onClose={() => setOpen(false)}
      value={null}
      inputValue={text}
      onInputChange={(_, value, reason) => {
        if (reason === 'input') {
          setText(scannedTag(value))
          setOpen(true)
        }
      }}
      onChange={(_, option) => option && choose(option)}
      options={options}
      filterOptions={(all) => all}
      // The text is part of the label, so that a new answer begins at its first bike again.
      getOptionLabel={({ bike, customer, answers }) =>
        `${bike ? `${bike.customer.name} ${bike.label}` : (customer?.name ?? '')} ${answers}`
      }
      getOptionKey={({ bike, customer }) => bike?.id ?? customer?.id ?? 'new'}
      autoHighlight
      blurOnSelect
      clearOnBlur={false}
      forcePopupIcon={false}
      noOptionsText={found.isFetching ? t('app.loading') : t('find.none', { text })}
      renderOption={({ key, ...props }, { bike, customer, answers }) =>
        bike ? (
          <Option key={key} attributes={props} bike={bike} />
        ) : customer ? (
          <Box component="li" key={key} {...props} sx={{ minHeight: 52, borderTop: 1, borderColor: 'divider' }}>
            {t('customer.find', { name: customer.name })}
          </Box>
        ) : (
          <Box component="li" key={key} {...props} sx={{ minHeight: 52, borderTop: 1, borderColor: 'divider' }}>
            {t('newBike.find', { text: answers.trim() })}
          </Box>
        )
      }
      renderInput={(params) => (
        <TextField
          {...params}
          inputRef={input}
          placeholder={t('find.hint')}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && !fresh && text.trim() !== '') {
              entered.current = text
              ;(event as typeof event & { defaultMuiPrevented?: boolean }).defaultMuiPrevented = true
            }
            if (event.key === 'Escape') {
              setText('')
              setOpen(false)
              input.current?.blur()
            }
          }}
          slotProps={{
            ...params.slotProps,
            htmlInput: { ...params.slotProps.htmlInput, 'aria-label': t('find.label') },
            input: {
              ...params.slotProps.input,
              sx: { height: 40 },
              endAdornment: (
                <InputAdornment position="end">
                  <KeyCap aria-hidden>/</KeyCap>
                </InputAdornment>
              ),
            },
          }}
        />
      )}
    />
  )
}

function Option({ bike, attributes }: { bike: BikeSummary; attributes: React.HTMLAttributes<HTMLLIElement> }) {
  const { t } = useTranslation()
  const look = lookToday(bike, today())
  return (
    <Box component="li" {...attributes} sx={{ minHeight: 56, gap: 2, alignItems: 'center !important' }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography noWrap sx={{ fontWeight: 600 }}>
          {bike.customer.name}
        </Typography>
        <Typography noWrap variant="body2" color="textSecondary">
          <BikeLine bike={bike} />, {t('find.tag', { tag: bike.tag })}
        </Typography>
      </Box>
      <Stack sx={{ alignItems: 'flex-end', gap: 0.25 }}>
        <Plate
          shape={look.plate}
          colour={look.colour}
          height={12}
          title={t(look.overdue ? 'overdue' : `word.${bike.standing.word}`)}
        />
        <WearRule size="small" marks={bike.marks} limit={bike.limit} colour={look.colour} />
      </Stack>
    </Box>
  )
}
