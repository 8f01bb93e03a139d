import { Autocomplete, Box, TextField } from '@mui/material'
import { useState } from 'react'
import { useFormContext } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { endpoints, type BikeSummary, type CatalogueLine, type DriveSystem } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useCatalogue, useFind } from '../../api/queries.ts'
import { DESCRIBING, typedDrive, typedOfPart, type TypedDrive } from './driveFrom.ts'

/** Takes what is known of a drive from a bike like it, or from a part that is on it; what differs is corrected after. */
export function FromElsewhere({
  bikeId,
  systems,
  onTake,
}: {
  bikeId: string
  systems: readonly DriveSystem[]
  onTake: (typed: Partial<TypedDrive>) => void
}) {
  const { t } = useTranslation()
  // Inside the form of the drive: its frame decides what a system wants.
  const { getValues } = useFormContext<TypedDrive>()
  const [text, setText] = useState('')
  const found = useFind(text)
  const [part, setPart] = useState('')
  const cassettes = useCatalogue({ q: part, kind: 'cassette', low: false })
  const rings = useCatalogue({ q: part, kind: 'ring', low: false })
  const derailleurs = useCatalogue({ q: part, kind: 'derailleur', low: false })
  const parts = [cassettes, rings, derailleurs].flatMap(({ data }) => data?.pages[0]?.parts ?? [])
  const takeBike = async (bike: BikeSummary | null): Promise<void> => {
    if (!bike) return
    const { drive } = await ask(endpoints.bikeParts, { params: { id: bike.id }, query: {} })
    onTake(typedDrive(drive))
  }
  const takePart = async (line: CatalogueLine | null): Promise<void> => {
    if (!line) return
    const { kind, cells } = await ask(endpoints.cataloguePart, { params: { id: line.id } })
    onTake(typedOfPart(kind, cells, systems, getValues('suspension')))
  }
  return (
    <Box
      sx={{
        gridColumn: '1 / -1',
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
        gap: 2,
        pb: 1,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Autocomplete<BikeSummary>
        options={(found.data?.bikes ?? []).filter(({ id }) => id !== bikeId)}
        filterOptions={(options) => options}
        getOptionLabel={({ customer, label }) => `${customer.name}, ${label}`}
        getOptionKey={({ id }) => id}
        isOptionEqualToValue={(a, b) => a.id === b.id}
        inputValue={text}
        onInputChange={(_, typed) => setText(typed)}
        onChange={(_, bike) => void takeBike(bike)}
        renderInput={(params) => (
          <TextField {...params} label={t('parts.likeBike')} placeholder={t('parts.likeBikeHint')} />
        )}
      />
      <Autocomplete<CatalogueLine>
        options={parts.filter(({ kind }) => DESCRIBING.includes(kind))}
        filterOptions={(options) => options}
        groupBy={({ kind }) => t(`catalogue.kind.${kind}`)}
        getOptionLabel={({ maker, name }) => `${maker} ${name}`}
        getOptionKey={({ id }) => id}
        isOptionEqualToValue={(a, b) => a.id === b.id}
        inputValue={part}
        onInputChange={(_, typed) => setPart(typed)}
        onChange={(_, line) => void takePart(line)}
        renderInput={(params) => (
          <TextField {...params} label={t('parts.fromPart')} placeholder={t('parts.fromPartHint')} />
        )}
      />
    </Box>
  )
}
