import { Box, Stack, Typography } from '@mui/material'
import { STEP_DRAWINGS } from '@pelrin/drawn'
import type { Sheet, SheetBlock } from '@pelrin/contract'
import { Plate } from '../../pieces/Plate.tsx'
import { ReachMap } from '../../pieces/ReachMap.tsx'
import { ToothDrawing } from '../../pieces/ToothDrawing.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { StepDrawn } from '../../pieces/StepDrawn.tsx'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'

/** A sheet as it will be on paper: A4, or a card as large as one of a wallet, twice its size to be read. */
export function SheetPage({ sheet }: { sheet: Sheet }) {
  const card = sheet.kind === 'carry-card'
  return (
    <Box
      component="article"
      aria-label={sheet.title}
      sx={{
        bgcolor: 'background.paper',
        border: 1,
        borderColor: 'divider',
        width: '100%',
        maxWidth: card ? 486 : 794,
        minHeight: card ? 306 : undefined,
        p: card ? 3 : { xs: 2.5, md: 6 },
        '@media print': { border: card ? undefined : 0, p: card ? 2 : 0, maxWidth: card ? '86mm' : 'none' },
      }}
    >
      <Typography variant="body2" color="textSecondary">
        {sheet.head}
      </Typography>
      <Typography component="h1" sx={{ fontSize: card ? 'size.say' : 'size.big', fontWeight: 700, lineHeight: 1.2 }}>
        {sheet.title}
      </Typography>
      <Typography sx={{ fontWeight: 600, mb: card ? 0.5 : 1.5 }}>{sheet.bike}</Typography>
      {sheet.blocks.map((block, i) => (
        <Block key={i} block={block} />
      ))}
    </Box>
  )
}

function Block({ block }: { block: SheetBlock }) {
  switch (block.kind) {
    case 'heading':
      return (
        <Typography
          component="h2"
          sx={{ fontSize: 'size.lead', fontWeight: 700, color: ink('steel'), mt: 1.75, mb: 0.25 }}
        >
          {block.text}
        </Typography>
      )
    case 'text':
      return <Typography sx={{ fontWeight: block.strong ? 600 : 400, my: 0.25 }}>{block.text}</Typography>
    case 'verdict':
      return (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5 }}>
          <Plate shape={VERDICT_LOOK[block.word].plate} colour={VERDICT_LOOK[block.word].colour} height={26} />
          <Typography sx={{ fontSize: 'size.head', fontWeight: 700, color: VERDICT_LOOK[block.word].colour }}>
            {block.text}
          </Typography>
        </Stack>
      )
    case 'rule':
      return (
        <Box sx={{ my: 0.5 }}>
          <WearRule
            size="large"
            marks={block.marks}
            limit={block.limit}
            {...(block.watch === null ? {} : { watch: block.watch })}
            colour={VERDICT_LOOK[block.word].colour}
          />
          <Typography variant="body2" color="textSecondary">
            {block.caption}
          </Typography>
        </Box>
      )
    case 'list':
      return (
        <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
          {block.items.map((item) => (
            <li key={item}>
              <Typography>{item}</Typography>
            </li>
          ))}
        </Box>
      )
    case 'step': {
      const drawn = STEP_DRAWINGS.find((one) => one === block.drawn)
      return (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: '28px minmax(0, 1fr) 190px',
            gap: 1.5,
            borderTop: 1,
            borderColor: 'divider',
            py: 0.75,
            breakInside: 'avoid',
          }}
        >
          <Typography sx={{ fontWeight: 700, color: ink('steel') }}>{block.number}</Typography>
          <Box>
            <Typography sx={{ fontWeight: 600 }}>{block.what}</Typography>
            <Typography variant="body2" color="textSecondary">
              {block.why}
            </Typography>
          </Box>
          {drawn && <StepDrawn drawn={drawn} width={190} />}
        </Box>
      )
    }
    case 'bill':
      return (
        <Box
          component="table"
          sx={{
            width: '100%',
            borderCollapse: 'collapse',
            fontVariantNumeric: 'tabular-nums',
            '& td': { borderBottom: 1, borderColor: 'divider', py: 0.4 },
            '& td:last-child': { textAlign: 'right' },
            '& tr:last-child td': { fontWeight: 700 },
          }}
        >
          <tbody>
            {block.rows.map(({ name, value }) => (
              <tr key={name}>
                <td>{name}</td>
                <td>{value}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      )
    case 'teeth':
      return (
        <Stack direction="row" sx={{ gap: 5, mt: 0.5 }}>
          {(['as-new', 'done'] as const).map((grade) => (
            <Box key={grade} sx={{ width: 160, textAlign: 'center' }}>
              <ToothDrawing grade={grade} label={block.captions[grade]} />
              <Typography variant="body2" color="textSecondary">
                {block.captions[grade]}
              </Typography>
            </Box>
          ))}
        </Stack>
      )
    case 'reach':
      return <ReachMap gears={block.gears} />
  }
}
