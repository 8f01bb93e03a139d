import { Autocomplete, Box, TextField, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, type CustomerLine } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useField } from '../../forms/useField.ts'

/** Whose a bike is: somebody known is offered while a name is typed; any other name is a new customer. */
export function WhoseBike() {
  const { t } = useTranslation()
  const { value: name, onChange: setName, wrong, ref } = useField<string>('customer.new.name')
  const { value: chosen, onChange: setChosen } = useField<CustomerLine | null>('known')
  const typed = name.trim()
  const found = useQuery({
    queryKey: keys.customers(typed),
    queryFn: ({ signal }) => ask(endpoints.customers, { query: { q: typed }, signal }),
    enabled: typed !== '' && chosen === null,
  })
  const said = chosen
    ? chosen.bikes.length === 0
      ? t('newBike.knownNoBike')
      : t('newBike.known', { bikes: chosen.bikes.join(', ') })
    : typed === ''
      ? t('newBike.customerHint')
      : t('newBike.isNew')
  return (
    <Autocomplete<CustomerLine, false, false, true>
      freeSolo
      autoHighlight={false}
      options={found.data ?? []}
      filterOptions={(all) => all}
      inputValue={name}
      onInputChange={(_, value, reason) => {
        if (reason !== 'input') return
        setName(value)
        setChosen(null)
      }}
      onChange={(_, value) => {
        if (value === null || typeof value === 'string') return
        setName(value.name)
        setChosen(value)
      }}
      getOptionLabel={(option) => (typeof option === 'string' ? option : option.name)}
      getOptionKey={(option) => (typeof option === 'string' ? option : option.id)}
      renderOption={({ key, ...props }, option) => (
        <Box component="li" key={key} {...props} sx={{ minHeight: 52, display: 'block !important' }}>
          <Typography sx={{ fontWeight: 600 }}>{option.name}</Typography>
          <Typography variant="body2" color="textSecondary">
            {[option.phone, ...option.bikes].filter(Boolean).join(', ')}
          </Typography>
        </Box>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          inputRef={ref}
          autoFocus
          label={t('newBike.customer')}
          error={wrong !== undefined}
          helperText={wrong ?? said}
          slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps.htmlInput, maxLength: 80 } }}
        />
      )}
    />
  )
}
