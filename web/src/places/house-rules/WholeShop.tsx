import { Box, Button, LinearProgress, Stack, Typography } from '@mui/material'
import DownloadIcon from '@mui/icons-material/FileDownloadOutlined'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { percentDone } from '../../messages/format.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { archiveIn, type TakenArchive } from '../../api/archiveIn.ts'
import { useWrite } from '../../api/useWrite.ts'
import { FoundInArchive, sumOf } from './FoundInArchive.tsx'
import { useOwnersFile } from './useOwnersFile.ts'
import { Refused } from '../../forms/Refused.tsx'

/** The whole shop as one archive, out and in: looked through first, then taken in. */
export function WholeShop() {
  const { t } = useTranslation()
  const download = useOwnersFile()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const input = useRef<HTMLInputElement>(null)
  const running = useRef<AbortController | null>(null)
  const [file, setFile] = useState<File | null>(null)
  const [looked, setLooked] = useState<TakenArchive | null>(null)
  const { busy, wrong, write } = useWrite({ access: 'owner' })
  const [share, setShare] = useState(0)
  const send = (chosen: File, how: { apply: boolean; settings: boolean }): Promise<TakenArchive | null> => {
    const { signal } = (running.current = new AbortController())
    setShare(0)
    return write(async () => {
      try {
        return await archiveIn(chosen, how, { signal, onProgress: setShare })
      } catch (error) {
        if (!signal.aborted) throw error
        // Stopped by who began it: nothing is wrong.
        setFile(null)
        return null
      }
    })
  }
  const look = async (chosen: File): Promise<void> => {
    setFile(chosen)
    setLooked(null)
    setLooked(await send(chosen, { apply: false, settings: false }))
  }
  const take = async (settings: boolean): Promise<void> => {
    const taken = file && (await send(file, { apply: true, settings }))
    if (!taken) return
    tell(t('rules.out.done', { count: sumOf(taken, 'added') }))
    setLooked(null)
    setFile(null)
    await client.invalidateQueries()
  }
  return (
    <Box component="section" aria-labelledby="whole-shop" sx={{ pt: 2 }}>
      <Typography id="whole-shop" variant="h2">
        {t('rules.out.whole')}
      </Typography>
      <Typography color="textSecondary">{t('rules.out.wholeNote')}</Typography>
      <Stack direction="row" sx={{ gap: 1.5, py: 1.5, flexWrap: 'wrap' }}>
        <Button
          component="a"
          href="/api/v1/archive.jsonl"
          download
          onClick={download}
          variant="contained"
          startIcon={<DownloadIcon />}
          sx={{ minHeight: 56 }}
        >
          {t('rules.out.wholeGo')}
        </Button>
        <Button variant="outlined" disabled={busy} onClick={() => input.current?.click()} sx={{ minHeight: 56 }}>
          {t('rules.out.takeIn')}
        </Button>
        <input
          ref={input}
          type="file"
          hidden
          accept=".jsonl"
          aria-label={t('rules.out.takeIn')}
          onChange={(event) => {
            const chosen = event.target.files?.[0]
            event.target.value = ''
            if (chosen) void look(chosen)
          }}
        />
        {busy && (
          <Button onClick={() => running.current?.abort()} sx={{ minHeight: 56 }}>
            {t('rules.out.stop')}
          </Button>
        )}
      </Stack>
      <Box aria-live="polite">
        {busy && (
          <Box sx={{ maxWidth: 420 }}>
            <Typography>{t('rules.out.looking')}</Typography>
            {/* It is read as fast as it is looked through; what is left at the end is the shop's to write. */}
            <LinearProgress
              aria-label={t('rules.out.looking')}
              {...(share < 1 ? { variant: 'determinate', value: percentDone(share, 1) } : {})}
            />
          </Box>
        )}
        {looked && file && (
          <FoundInArchive name={file.name} found={looked} busy={busy} onTake={(settings) => void take(settings)} />
        )}
        <Refused>{wrong?.sentence}</Refused>
      </Box>
    </Box>
  )
}
