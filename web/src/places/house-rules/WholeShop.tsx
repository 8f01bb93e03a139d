import { Box, Button, LinearProgress, Stack, Typography } from '@mui/material'
import DownloadIcon from '@mui/icons-material/FileDownloadOutlined'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { percentDone } from '../../messages/format.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { archiveIn, type TakenTable } from '../../api/archiveIn.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useOwnersFile } from './useOwnersFile.ts'
import { Refused } from '../../forms/Refused.tsx'

const sumOf = (tables: readonly TakenTable[], what: 'added' | 'same' | 'conflicts'): number =>
  tables.reduce((sum, one) => sum + one[what], 0)

/** The whole shop as one archive, out and in: looked through first, then taken in. */
export function WholeShop() {
  const { t } = useTranslation()
  const download = useOwnersFile()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const input = useRef<HTMLInputElement>(null)
  const running = useRef<AbortController | null>(null)
  const [file, setFile] = useState<File | null>(null)
  const [looked, setLooked] = useState<readonly TakenTable[] | null>(null)
  const { busy, wrong, write } = useWrite()
  const [share, setShare] = useState(0)
  const send = (chosen: File, apply: boolean): Promise<readonly TakenTable[] | null> => {
    const { signal } = (running.current = new AbortController())
    setShare(0)
    return write(async () => {
      try {
        return await archiveIn(chosen, apply, { signal, onProgress: setShare })
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
    setLooked(await send(chosen, false))
  }
  const take = async (): Promise<void> => {
    const taken = file && (await send(file, true))
    if (!taken) return
    tell(t('rules.out.done', { count: sumOf(taken, 'added') }))
    setLooked(null)
    setFile(null)
    await client.invalidateQueries()
  }
  const added = looked ? sumOf(looked, 'added') : 0
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
          <>
            <Typography sx={{ fontWeight: 700 }}>
              {file.name}:{' '}
              {added === 0 && sumOf(looked, 'conflicts') === 0
                ? t('rules.out.nothing')
                : [
                    t('rules.out.added', { count: added }),
                    t('rules.out.same', { count: sumOf(looked, 'same') }),
                    t('rules.out.conflicts', { count: sumOf(looked, 'conflicts') }),
                  ].join(', ')}
            </Typography>
            {added > 0 && (
              <Button variant="contained" disabled={busy} onClick={() => void take()} sx={{ mt: 1, minHeight: 56 }}>
                {t('rules.out.go2', { count: added })}
              </Button>
            )}
          </>
        )}
        <Refused>{wrong?.sentence}</Refused>
      </Box>
    </Box>
  )
}
