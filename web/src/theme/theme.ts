import '@fontsource/barlow-semi-condensed/400.css'
import '@fontsource/barlow-semi-condensed/500.css'
import '@fontsource/barlow-semi-condensed/600.css'
import '@fontsource/barlow-semi-condensed/700.css'
import { createTheme } from '@mui/material/styles'
import type {} from '@mui/x-date-pickers/themeAugmentation'

/** What a machinist's rule and a shop's paper are made of. */
interface Materials {
  /** The ground everything lies on. */
  paper: string
  /** What is being worked on lies on this. */
  sheet: string
  /** The steel of a rule. */
  blade: string
  /** Engraved lines and edges. */
  edge: string
  /** Hairlines between things. */
  line: string
  ink: string
  /** Ink for what is said beside. */
  faint: string
  /** Blued steel: what can be done, and what is well. */
  steel: string
  /** Attention. */
  brass: string
  /** Off. */
  madder: string
}

/** Every size of letters there is, px: what is said at the edge, beside, as text, and what is read from where one stands. */
const SIZES = {
  cap: 13,
  note: 14,
  small: 15,
  text: 16.5,
  lead: 18,
  say: 21,
  head: 26,
  big: 30,
  step: 34,
  door: 46,
  far: 58,
} as const

declare module '@mui/material/styles' {
  interface Palette {
    materials: Materials
  }
  interface PaletteOptions {
    materials: Materials
  }
  interface TypographyVariants {
    size: typeof SIZES
  }
  interface TypographyVariantsOptions {
    size?: typeof SIZES
  }
}

const light: Materials = {
  paper: '#f4f1ea',
  sheet: '#fdfcf8',
  blade: '#dfe4e5',
  edge: '#1d2328',
  line: '#cfcabd',
  ink: '#1d2328',
  faint: '#595e62',
  steel: '#2b4a66',
  brass: '#7d5a0c',
  madder: '#9c2438',
}

const dark: Materials = {
  paper: '#16191c',
  sheet: '#1f2428',
  blade: '#333b40',
  edge: '#d9d6ce',
  line: '#3a4045',
  ink: '#ece9e2',
  faint: '#a9adaf',
  steel: '#9cc0e0',
  brass: '#dcab4b',
  madder: '#f08c9b',
}

const palette = (materials: Materials, onSteel: string) => ({
  materials,
  primary: { main: materials.steel, contrastText: onSteel },
  secondary: { main: materials.brass },
  error: { main: materials.madder },
  warning: { main: materials.brass },
  text: { primary: materials.ink, secondary: materials.faint },
  background: { default: materials.paper, paper: materials.sheet },
  divider: materials.line,
})

/** The variables everything is painted with. */
const paints = ({ paper, sheet, line, ink: text, faint, ...materials }: Materials): Record<string, string> => {
  const all = { paper, sheet, line, ink: text, faint, ...materials }
  return {
    ...Object.fromEntries(Object.entries(all).map(([name, colour]) => [`--mui-palette-materials-${name}`, colour])),
    '--mui-palette-background-default': paper,
    '--mui-palette-background-paper': sheet,
    '--mui-palette-text-primary': text,
    '--mui-palette-text-secondary': faint,
    '--mui-palette-divider': line,
  }
}

/**
 * On paper there is the place alone, all of it, dark on white: nothing of the shell, nothing to press, nothing
 * marked `data-no-print`, and no piece that scrolls.
 */
const ON_PAPER = {
  ':root, :root[data-light]': paints({ ...light, paper: '#ffffff', sheet: '#ffffff' }),
  // Nothing can be pressed there.
  'header, nav, [data-no-print], .MuiSnackbar-root, .MuiButton-root, .MuiToggleButton-root, kbd': {
    display: 'none !important',
  },
  'html, body, #root, #root > *, main, main > *, main > * > *, main > * > * > *, [role=table], [role=listbox]': {
    height: 'auto !important',
    maxHeight: 'none !important',
    overflow: 'visible !important',
  },
  '#root > *': { display: 'block !important' },
  'li, tr, [role=row], [role=option]': { breakInside: 'avoid' },
  '@page': { margin: '14mm' },
  '@page wide': { size: 'landscape' },
}

/** What a gloved thumb hits, px. */
const TOUCH = 48

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-light' },
  colorSchemes: {
    // What stands in an empty field is read, too.
    light: { palette: palette(light, '#ffffff'), opacity: { inputPlaceholder: 0.75 } },
    dark: { palette: palette(dark, '#10151a'), opacity: { inputPlaceholder: 0.75 } },
  },
  shape: { borderRadius: 3 },
  typography: {
    fontFamily: '"Barlow Semi Condensed", "Arial Narrow", sans-serif',
    fontSize: SIZES.small,
    // Asked for by name: `fontSize: 'size.lead'`.
    size: SIZES,
    h1: { fontSize: SIZES.big, fontWeight: 700, lineHeight: 1.15 },
    h2: { fontSize: 22, fontWeight: 600, lineHeight: 1.2 },
    h3: { fontSize: SIZES.note, fontWeight: 600, lineHeight: 1.3 },
    body1: { fontSize: SIZES.text, lineHeight: 1.35 },
    body2: { fontSize: SIZES.small, lineHeight: 1.35 },
    button: { textTransform: 'none', fontWeight: 600, fontSize: SIZES.text },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontFeatureSettings: '"tnum" 1, "lnum" 1', overscrollBehavior: 'none' },
        // Whoever works by keys sees where they are: no piece may take that away again. A field shows it by its frame.
        '*:focus-visible:not(.MuiInputBase-input)': {
          outline: '2.5px solid var(--mui-palette-materials-steel) !important',
          outlineOffset: 2,
        },
        '.MuiInputBase-input:focus-visible': { outline: 0 },
        // What is seen of a box to tick is drawn round the box itself.
        '.Mui-focusVisible:has(> input)': { outline: '2.5px solid var(--mui-palette-materials-steel) !important' },
        // What is only a frame round what is worked with.
        '.MuiDialog-container:focus-visible, h1:focus-visible': { outline: '0 !important' },
        '@media print': ON_PAPER,
        // Where the system paints in its own colours, what is chosen and where one is still shows.
        '@media (forced-colors: active)': {
          '[aria-current], [aria-selected=true], [aria-pressed=true], .Mui-selected': {
            outline: '3px solid Highlight !important',
            outlineOffset: '-3px !important',
          },
          '.MuiButton-root, .MuiToggleButton-root': { border: '1px solid ButtonText' },
          '*:focus-visible': { outlineColor: 'Highlight !important' },
        },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { animation: 'none !important', transition: 'none !important' },
        },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, disableRipple: true },
      styleOverrides: { root: { minHeight: TOUCH, paddingInline: 18 } },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    // Nobody at a stand waits for a dialog to fade.
    MuiDialog: { defaultProps: { transitionDuration: 0 } },
    MuiMenu: { defaultProps: { transitionDuration: 0 } },
    // What is chosen from is high enough for a glove, at every width.
    MuiMenuItem: {
      styleOverrides: {
        root: ({ theme: t }) => ({ minHeight: TOUCH, [t.breakpoints.up('sm')]: { minHeight: TOUCH } }),
      },
    },
    MuiFormControlLabel: { styleOverrides: { root: { minHeight: TOUCH } } },
    MuiTextField: { defaultProps: { variant: 'outlined' } },
    // A label stands above what it names, whether something is typed or not: nothing moves as one types.
    MuiInputLabel: { defaultProps: { shrink: true } },
    MuiOutlinedInput: {
      defaultProps: { notched: true },
      styleOverrides: {
        root: ({ theme: t }) => ({
          backgroundColor: t.vars.palette.materials.sheet,
          '& .MuiOutlinedInput-notchedOutline': { borderColor: t.vars.palette.materials.edge },
        }),
      },
    },
    // Days and times look like all other fields.
    MuiPickersTextField: { defaultProps: { slotProps: { inputLabel: { shrink: true } } } },
    MuiPickersOutlinedInput: {
      styleOverrides: {
        root: ({ theme: t }) => ({ backgroundColor: t.vars.palette.materials.sheet }),
        notchedOutline: ({ theme: t }) => ({ borderColor: t.vars.palette.materials.edge }),
      },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: ({ theme: t }) => ({
          minHeight: TOUCH,
          paddingBlock: 0,
          color: t.vars.palette.materials.ink,
          borderColor: t.vars.palette.materials.edge,
          textTransform: 'none',
          '&.Mui-selected, &.Mui-selected:hover': {
            color: t.vars.palette.primary.contrastText,
            backgroundColor: t.vars.palette.materials.steel,
          },
        }),
      },
    },
    // What does not fit beside each other stands below.
    MuiToggleButtonGroup: {
      styleOverrides: {
        root: ({ theme: t }) => ({
          flexWrap: 'wrap',
          paddingLeft: 1,
          // Whichever begins a line has a side of its own.
          '& .MuiToggleButtonGroup-grouped': {
            marginLeft: -1,
            borderLeft: `1px solid ${t.vars.palette.materials.edge}`,
          },
        }),
      },
    },
    MuiTab: { styleOverrides: { root: { textTransform: 'none', fontSize: 17, minWidth: 0, paddingInline: 12 } } },
    MuiTooltip: { defaultProps: { disableInteractive: true } },
  },
})

/** A material of the theme as a CSS colour, for drawings. */
export const ink = (material: keyof Materials): string => `var(--mui-palette-materials-${material})`
