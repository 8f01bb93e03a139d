import {
  Alert,
  Autocomplete,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  MenuItem,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { CARE_KINDS } from '@pelrin/core'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import { Controller, useForm, useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type CustomerLine } from '@pelrin/contract'
import { ask, ProblemError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { usePutOnStand } from '../../app/usePutOnStand.ts'
import { fieldOf, newBikeBody, NOTHING_TYPED, wrongFields, type NewBikeFields, type NewBikeIds } from './newBike.ts'
import { WhoseBike } from './WhoseBike.tsx'
import { useTitle } from '../../pieces/useTitle.ts'

/** Where what is typed waits, should the page be loaded again. */
const KEPT = 'pelrin.new-bike'
interface Kept {
  /** What was looked for: another search begins anew. */
  readonly asked: string
  readonly fields: NewBikeFields
  readonly customer: CustomerLine | null
}

function keptFor(asked: string): Kept | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(KEPT) ?? 'null') as Kept | null
    return asked === '' || kept?.asked === asked ? kept : null
  } catch {
    return null
  }
}

/** A bike that was never here is taken in: whose, what, its drive, its chain; then it is on the stand. */
export function NewBikePlace() {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const putOnStand = usePutOnStand()
  const [search] = useSearchParams()
  // What was looked for and not found: a name, or what stands on a tag.
  const asked = search.get('for') ?? ''
  const isTag = /\d/.test(asked)
  const [before] = useState(() => keptFor(asked))
  const [ids] = useState((): NewBikeIds => ({ bike: v7(), customer: v7(), chain: v7(), fitting: v7(), odometer: v7() }))
  const [customer, setCustomer] = useState<CustomerLine | null>(before?.customer ?? null)
  const [general, setGeneral] = useState<string | null>(null)
  const form = useForm<NewBikeFields>({
    defaultValues: before?.fields ?? {
      ...NOTHING_TYPED,
      ...(isTag ? { tag: asked } : { customer: asked }),
    },
  })
  const { errors, isSubmitting } = form.formState
  const fields = useWatch({ control: form.control }) as NewBikeFields
  useTitle(t('newBike.title'))
  useEffect(() => {
    sessionStorage.setItem(KEPT, JSON.stringify({ asked, fields, customer } satisfies Kept))
  }, [asked, fields, customer])
  const save = form.handleSubmit(async (typed) => {
    setGeneral(null)
    const malformed = Object.entries(wrongFields(typed)) as [keyof NewBikeFields, string][]
    for (const [i, [name, code]] of malformed.entries())
      form.setError(name, { message: t(`problems.${code}`) }, { shouldFocus: i === 0 })
    if (malformed.length > 0) return
    try {
      const added = await ask(endpoints.addBike, { body: newBikeBody(typed, ids), key: ids.bike })
      sessionStorage.removeItem(KEPT)
      await client.invalidateQueries({ queryKey: keys.rack })
      tell(t('newBike.done', { label: added.label, tag: added.tag }))
      putOnStand(added.id)
    } catch (error) {
      const problem = error instanceof ProblemError ? error.problem : null
      const placed = (problem?.fields ?? []).flatMap(({ path, detail }) => {
        const name = fieldOf(path)
        return name ? [{ name, detail }] : []
      })
      for (const [i, { name, detail }] of placed.entries())
        form.setError(name, { message: detail }, { shouldFocus: i === 0 })
      if (placed.length === 0) setGeneral(problem?.detail ?? t('app.notSaved'))
    }
  })
  const field = (name: keyof NewBikeFields, more: { label?: string; hint?: string; width?: number } = {}) => (
    <TextField
      {...form.register(name)}
      label={more.label ?? t(`newBike.${name}`)}
      error={errors[name] !== undefined}
      helperText={errors[name]?.message ?? more.hint ?? ' '}
      sx={more.width === undefined ? {} : { width: more.width }}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  )
  const choice = <Name extends 'type' | 'chainIs' | 'unit'>(
    name: Name,
    label: string,
    options: readonly { value: NewBikeFields[Name]; word: string }[],
  ) => (
    <Controller
      control={form.control}
      name={name}
      render={({ field: { value, onChange } }) => (
        <ToggleButtonGroup
          exclusive
          color="primary"
          value={value}
          aria-label={label}
          onChange={(_, chosen: string | null) => chosen !== null && onChange(chosen)}
          sx={{ '& button': { minHeight: 48, px: 2 } }}
        >
          {options.map((option) => (
            <ToggleButton key={option.value} value={option.value}>
              {option.word}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      )}
    />
  )
  const { type, chainIs } = fields
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void save(event)}
      sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1180 }}
    >
      <Typography variant="h2" component="h1" sx={{ mb: 2 }}>
        {t('newBike.title')}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, columnGap: 5, rowGap: 2 }}>
        <Stack sx={{ gap: 1 }}>
          <Part title={t('newBike.whose')}>
            <Box sx={{ display: 'grid', gridTemplateColumns: customer === null ? '1.6fr 1fr' : '1fr', gap: 1.5 }}>
              <WhoseBike
                name={fields.customer}
                chosen={customer}
                wrong={errors.customer?.message}
                onType={(name) => {
                  form.setValue('customer', name)
                  form.setValue('customerId', null)
                  form.clearErrors('customer')
                  setCustomer(null)
                }}
                onChoose={(chosen) => {
                  form.setValue('customer', chosen.name)
                  form.setValue('customerId', chosen.id)
                  setCustomer(chosen)
                }}
              />
              {customer === null && field('phone')}
            </Box>
          </Part>
          <Part title={t('newBike.bike')}>
            <Pair>
              {field('label')}
              <Controller
                control={form.control}
                name="kind"
                render={({ field: { value, onChange } }) => (
                  <Autocomplete
                    freeSolo
                    options={t('newBike.kinds').split('|')}
                    inputValue={value}
                    onInputChange={(_, typed) => onChange(typed)}
                    renderInput={(params) => (
                      <TextField
                        {...params}
                        label={t('newBike.kind')}
                        error={errors.kind !== undefined}
                        helperText={errors.kind?.message ?? ' '}
                        slotProps={{ ...params.slotProps, inputLabel: { shrink: true } }}
                      />
                    )}
                  />
                )}
              />
            </Pair>
            <Pair>
              {field('maker')}
              {field('model')}
            </Pair>
            <Pair>
              {field('frameMark')}
              {field('tag', { hint: t('newBike.tagHint') })}
            </Pair>
          </Part>
        </Stack>
        <Stack sx={{ gap: 1 }}>
          <Part title={t('newBike.drive')}>
            {choice(
              'type',
              t('newBike.drive'),
              (['derailleur', 'hub-gear', 'single-speed'] as const).map((value) => ({
                value,
                word: t(`driveKind.${value}`),
              })),
            )}
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: type === 'single-speed' ? '1fr 1fr' : '1fr 1fr 1fr',
                gap: 1.5,
                mt: 1,
              }}
            >
              {type !== 'single-speed' &&
                field('speeds', { label: t(type === 'hub-gear' ? 'newBike.speedsHub' : 'newBike.speeds') })}
              {field('fronts', { hint: t('newBike.frontsHint') })}
              {field('sprockets', type === 'derailleur' ? { hint: t('newBike.sprocketsHint') } : {})}
            </Box>
            <Controller
              control={form.control}
              name="motor"
              render={({ field: { value, onChange } }) => (
                <FormControlLabel
                  control={<Checkbox checked={value} onChange={(_, on) => onChange(on)} />}
                  label={t('newBike.motor')}
                  sx={{ minHeight: 44 }}
                />
              )}
            />
          </Part>
          <Part title={t('newBike.chain')}>
            {choice(
              'chainIs',
              t('newBike.chain'),
              (['came', 'fresh', 'none'] as const).map((value) => ({ value, word: t(`newBike.chainIs.${value}`) })),
            )}
            {chainIs !== 'none' && (
              <Box sx={{ display: 'grid', gridTemplateColumns: '1.5fr 1fr 1.2fr', gap: 1.5, mt: 1 }}>
                {field('chainName', { hint: t('newBike.chainNameHint') })}
                {field('pitches', { hint: t('newBike.pitchesHint') })}
                <Controller
                  control={form.control}
                  name="care"
                  render={({ field: { value, onChange } }) => (
                    <TextField
                      select
                      label={t('newBike.care')}
                      value={value}
                      onChange={onChange}
                      helperText=" "
                      slotProps={{ inputLabel: { shrink: true } }}
                    >
                      {CARE_KINDS.map((one) => (
                        <MenuItem key={one} value={one} sx={{ minHeight: 48 }}>
                          {t(`care.${one}`)}
                        </MenuItem>
                      ))}
                    </TextField>
                  )}
                />
              </Box>
            )}
            <Stack direction="row" sx={{ gap: 1.5, mt: 1, alignItems: 'flex-start' }}>
              {field('odometer', { hint: t('newBike.odometerHint'), width: 220 })}
              {choice('unit', t('newBike.unit'), [
                { value: 'km', word: 'km' },
                { value: 'mi', word: 'mi' },
              ])}
            </Stack>
          </Part>
          {general !== null && <Alert severity="error">{general}</Alert>}
          <Button
            type="submit"
            variant="contained"
            disabled={isSubmitting}
            sx={{ minHeight: 60, px: 5, alignSelf: 'flex-start' }}
          >
            {t('newBike.save')}
          </Button>
        </Stack>
      </Box>
    </Box>
  )
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 1.25 }}>
        {title}
      </Typography>
      {children}
    </Box>
  )
}

const Pair = ({ children }: { children: ReactNode }) => (
  <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5, mb: 1 }}>{children}</Box>
)
