import { CssBaseline, ThemeProvider } from '@mui/material'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App, fetchPlacesAhead } from './app/App.tsx'
import { askAnew } from './api/askAnew.ts'
import { createQueryClient } from './api/queries.ts'
import './messages/index.ts'
import { drafts } from './drafts/drafts.ts'
import { outbox } from './outbox/outbox.ts'
import { theme } from './theme/theme.ts'

const client = createQueryClient()
// Before anything is sent, and whether a place is open by then or not.
outbox.onEnd(() => void askAnew(client))
await Promise.all([outbox.open(), drafts.open()])

const root = document.getElementById('root')
if (!root) throw new Error('the page has no root')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline />
        <App />
      </ThemeProvider>
    </QueryClientProvider>
  </StrictMode>,
)

setTimeout(() => void fetchPlacesAhead(), 1500)
