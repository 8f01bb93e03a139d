import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { fieldsOf, type PartField, type PartKind } from '@pelrin/core'
import type { DriveSystem } from '@pelrin/contract'
import { Choice } from '../../forms/Choice.tsx'
import { Flag } from '../../forms/Flag.tsx'
import { Line } from '../../forms/Line.tsx'
import { Several } from '../../forms/Several.tsx'
import { saidOf } from '../../messages/said.ts'

const HINTED: readonly string[] = ['speeds', 'sprockets', 'teeth', 'pulleys', 'reuse', 'belongsTo', 'innerMm']

/** What is to be said of a part of one kind, field by field, in the words the core reads. */
export function PartFields({
  kind,
  systems,
  withStock,
}: {
  kind: PartKind
  systems: readonly DriveSystem[]
  /** A new part may say how many are there; later its stock changes by what comes and goes. */
  withStock: boolean
}) {
  const fields = fieldsOf(kind).filter(({ key }) => withStock || key !== 'stock')
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'repeat(2, minmax(0, 1fr))', lg: 'repeat(3, minmax(0, 1fr))' },
        columnGap: 1.75,
        rowGap: 1.75,
        alignItems: 'start',
      }}
    >
      {fields.map((field) => (
        <FieldOfPart key={field.key} field={field} systems={systems} />
      ))}
    </Box>
  )
}

function FieldOfPart({ field: { key, input }, systems }: { field: PartField; systems: readonly DriveSystem[] }) {
  const { t } = useTranslation()
  const common = {
    name: key,
    label: saidOf(t, 'catalogue.field', key),
    hint: HINTED.includes(key) ? saidOf(t, 'catalogue.hint', key) : undefined,
  }
  const choice = (one: string): string => saidOf(t, 'catalogue.choice', one)
  switch (input.kind) {
    case 'yes-no':
      return <Flag {...common} on="yes" off="no" />
    case 'choice':
      return (
        <Choice
          {...common}
          options={[
            ...(input.mayBeEmpty ? [['', t('catalogue.notKnown')] as const] : []),
            ...input.choices.map((one) => [one, choice(one)] as const),
          ]}
        />
      )
    case 'choices':
      return <Several {...common} options={input.choices} words={choice} />
    case 'systems':
      return <Several {...common} options={systems.map(({ name }) => name)} />
    case 'long-text':
      return <Line {...common} rows={1} />
    default:
      return <Line {...common} of={input.kind === 'number' ? 'number' : 'text'} />
  }
}
