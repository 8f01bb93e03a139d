import { GlobalStyles } from '@mui/material'

/** Only the page itself goes on paper: what is not marked `data-no-print`, and nothing of the shell. */
export const ON_PAPER = (
  <GlobalStyles
    styles={{
      '@media print': {
        'header, nav, [data-no-print]': { display: 'none !important' },
        'html, body, #root, main': { height: 'auto !important', overflow: 'visible !important', background: '#fff' },
        '@page': { margin: '14mm' },
      },
    }}
  />
)
