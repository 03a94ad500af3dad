import { createTheme, type CSSVariablesResolver, type MantineColorsTuple } from '@mantine/core';

/**
 * The look: paint made of pigment and egg. Warm paper and ink by day, bone black before dawn, and a few earth pigments.
 * This file and theme.css are the only places that name colours.
 */
const ochre: MantineColorsTuple = [
  '#fdf4e0',
  '#f8e7c3',
  '#f0d298',
  '#e6bb68',
  '#dca943',
  '#d39c35',
  '#c8912f',
  '#a97823',
  '#8a611b',
  '#6b4a13',
];
const umber: MantineColorsTuple = [
  '#f6efe8',
  '#e8dacb',
  '#d4bba1',
  '#bf9a76',
  '#a87f57',
  '#8f6743',
  '#755336',
  '#5d412a',
  '#473120',
  '#322216',
];
const verdigris: MantineColorsTuple = [
  '#e9f4f1',
  '#cfe5df',
  '#a8d0c6',
  '#7cb8ab',
  '#559f91',
  '#3d877a',
  '#2f6f64',
  '#265a51',
  '#1d463f',
  '#14322d',
];
const madder: MantineColorsTuple = [
  '#fbecea',
  '#f3d0cb',
  '#e5a59d',
  '#d5776d',
  '#c45347',
  '#ad3f35',
  '#93342c',
  '#782a23',
  '#5e201b',
  '#431612',
];

/** The library draws disabled, default and dark surfaces from these two: warm, so that nothing turns slate blue. */
const paperGrey: MantineColorsTuple = [
  '#faf4e8',
  '#f1e8d7',
  '#e6dac4',
  '#d8c8ad',
  '#c4b193',
  '#a5937a',
  '#877660',
  '#6b5c4b',
  '#51453a',
  '#3a312a',
];
const boneBlack: MantineColorsTuple = [
  '#e8dcc8',
  '#c9bba5',
  '#a19380',
  '#7d7062',
  '#5d5248',
  '#473e37',
  '#352d29',
  '#2a2421',
  '#1d1917',
  '#141110',
];

export const theme = createTheme({
  colors: { ochre, umber, verdigris, madder, gray: paperGrey, dark: boneBlack },
  // The same three as the style sheets: a phone, what is narrower than a tablet held upright, what is narrower than a desk.
  breakpoints: { xs: '30em', sm: '50em', md: '68.75em' },
  primaryColor: 'ochre',
  primaryShade: { light: 5, dark: 4 },
  autoContrast: true,
  luminanceThreshold: 0.32,
  black: '#2a2420',
  white: '#fffaf0',
  fontFamily: "'Source Sans 3 Variable', system-ui, sans-serif",
  headings: { fontFamily: "'Alegreya Variable', Georgia, serif", fontWeight: '600' },
  fontSizes: { xs: '0.875rem', sm: '1rem', md: '1.0625rem', lg: '1.25rem', xl: '1.5rem' },
  defaultRadius: 'sm',
  radius: { sm: '6px', md: '10px' },
  respectReducedMotion: true,
  components: {
    // Wet hands on a tablet: nothing to press is smaller than 48 px.
    Button: { defaultProps: { size: 'md' } },
    ActionIcon: { defaultProps: { size: 48, variant: 'subtle', color: 'umber' } },
    Select: { defaultProps: { size: 'md' } },
    Chip: { defaultProps: { variant: 'outline' } },
    Modal: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
    CloseButton: { defaultProps: { size: 48 } },
  },
});

/** Our own roles of colour, by scheme. */
export const roles = {
  light: {
    '--mantine-color-body': '#f4ecdd',
    '--mantine-color-text': '#2a2420',
    '--mantine-color-dimmed': '#655646',
    '--mantine-color-default': '#fffaf0',
    '--mantine-color-default-hover': '#fbf1dd',
    '--mantine-color-default-border': '#b9a68c',
    '--mantine-color-placeholder': '#7a6a58',
    '--mantine-color-error': '#93342c',
    '--sheet': '#fffaf0',
    '--wash': '#ebdfc9',
    '--line': '#cdbc9f',
    '--line-strong': '#7d6b55',
    '--ink': '#2a2420',
    '--faint-ink': '#655646',
    '--window': '#e6bb68',
    '--window-edge': '#8a611b',
    '--good': '#265a51',
    '--out': '#93342c',
    '--wood': '#e0c9a4',
    '--wood-line': '#b99a6c',
    '--steel': '#d9d3c7',
    '--steel-dark': '#a39a8b',
    '--chart-mass': '#2a2420',
    '--chart-flow': '#2f6f64',
  },
  dark: {
    '--mantine-color-body': '#1d1917',
    '--mantine-color-text': '#efe5d3',
    '--mantine-color-dimmed': '#b9ab96',
    '--mantine-color-default': '#2a2421',
    '--mantine-color-default-hover': '#352d29',
    '--mantine-color-default-border': '#6e6153',
    '--mantine-color-placeholder': '#a19380',
    '--mantine-color-error': '#e5a59d',
    '--sheet': '#262120',
    '--wash': '#2f2926',
    '--line': '#4a4038',
    '--line-strong': '#9c8d79',
    '--ink': '#efe5d3',
    '--faint-ink': '#b9ab96',
    '--window': '#8a611b',
    '--window-edge': '#e6bb68',
    '--good': '#7cb8ab',
    '--out': '#e5a59d',
    '--wood': '#43352a',
    '--wood-line': '#5f4b39',
    '--steel': '#4b4742',
    '--steel-dark': '#6f695f',
    '--chart-mass': '#efe5d3',
    '--chart-flow': '#7cb8ab',
  },
} satisfies Record<'light' | 'dark', Record<string, string>>;

export const cssVariables: CSSVariablesResolver = () => ({ variables: {}, ...roles });
