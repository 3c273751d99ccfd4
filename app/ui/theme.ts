import { createSystem, defaultBaseConfig, defineConfig, defineRecipe, mergeConfigs } from '@chakra-ui/react'
import '@fontsource-variable/schibsted-grotesk'
import '@fontsource-variable/literata'
import '@fontsource/spline-sans-mono/400.css'
import '@fontsource/spline-sans-mono/600.css'

const role = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } })

const button = defineRecipe({
  className: 'dl-button',
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '1.5',
    fontWeight: '500',
    fontSize: 'sm',
    borderRadius: 'md',
    borderWidth: '1px',
    whiteSpace: 'nowrap',
    cursor: 'pointer',
    userSelect: 'none',
    transition: 'background 120ms',
    focusVisibleRing: 'outside',
    focusRingColor: 'water',
    _disabled: { opacity: 0.5, cursor: 'not-allowed' },
  },
  variants: {
    look: {
      plain: { bg: 'raised', color: 'ink', borderColor: 'hairline', _hover: { bg: 'waterTint' } },
      water: { bg: 'water', color: 'onWater', borderColor: 'water', _hover: { bg: 'waterDeep' } },
      quiet: {
        bg: 'transparent',
        color: 'waterText',
        borderColor: 'transparent',
        _hover: { bg: 'waterTint' },
      },
      clay: { bg: 'raised', color: 'clayText', borderColor: 'clay', _hover: { bg: 'clayTint' } },
    },
    size: { sm: { h: '7', px: '2.5', fontSize: 'xs' }, md: { h: '8', px: '3' } },
  },
  defaultVariants: { look: 'plain', size: 'md' } as never,
})

const field = {
  bg: 'raised',
  borderWidth: '1px',
  borderColor: 'hairline',
  borderRadius: 'sm',
  px: '2',
  h: '8',
  fontSize: 'sm',
  color: 'ink',
  focusVisibleRing: 'outside',
  focusRingColor: 'water',
} as const

/** One step of space is 4 px. */
const steps = [0, 0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 7, 8, 9, 10, 12, 16, 24]
const space = Object.fromEntries(steps.map((n) => [String(n), { value: `${n * 4}px` }]))

const config = defineConfig({
  preflight: true,
  globalCss: {
    'html, body, #root': { height: '100%', margin: 0 },
    body: {
      bg: 'paper',
      color: 'ink',
      fontFamily: 'body',
      fontSize: '14px',
      lineHeight: '1.45',
      fontFeatureSettings: '"ss01" off',
    },
    '*:focus-visible': { outline: '2px solid', outlineColor: 'water', outlineOffset: '2px' },
    '::selection': { bg: 'waterTint' },
    kbd: {
      fontFamily: 'mono',
      fontSize: '11px',
      borderWidth: '1px',
      borderColor: 'hairline',
      borderRadius: '3px',
      px: '1',
      color: 'soft',
      bg: 'paper',
    },
  },
  theme: {
    recipes: { dlButton: button, dlField: defineRecipe({ className: 'dl-field', base: field }) },
    tokens: {
      fonts: {
        body: { value: "'Schibsted Grotesk Variable', system-ui, sans-serif" },
        heading: { value: "'Schibsted Grotesk Variable', system-ui, sans-serif" },
        reading: { value: "'Literata Variable', Georgia, serif" },
        mono: { value: "'Spline Sans Mono', ui-monospace, monospace" },
      },
      radii: { sm: { value: '4px' }, md: { value: '6px' }, full: { value: '9999px' } },
      spacing: space,
      sizes: { ...space, full: { value: '100%' } },
      fontSizes: { xs: { value: '12px' }, sm: { value: '13px' } },
      zIndex: { popover: { value: 1500 } },
      colors: {
        hue: {
          indigo: { value: '#3F56A6' },
          sky: { value: '#2C7DA8' },
          violet: { value: '#7E57A8' },
          rose: { value: '#B24A7E' },
          brown: { value: '#7B5333' },
          slate: { value: '#5A6778' },
          jade: { value: '#1F7F68' },
          graphite: { value: '#3B3F45' },
        },
      },
    },
    semanticTokens: {
      colors: {
        paper: role('#F7F5EF', '#161D1B'),
        raised: role('#FFFDF8', '#1E2724'),
        ink: role('#1E2925', '#E9E6DC'),
        soft: role('#5C6862', '#A3AFA8'),
        hairline: role('#DDD8CA', '#36413D'),
        water: role('#12666B', '#5FB7BB'),
        waterDeep: role('#0D5054', '#7CC9CC'),
        waterText: role('#12666B', '#7CC9CC'),
        waterTint: role('#E1ECE9', '#20383A'),
        onWater: role('#FFFDF8', '#10201F'),
        clay: role('#B5552B', '#D9804F'),
        clayText: role('#A84C24', '#E79B70'),
        clayOnTint: role('#8A3B19', '#F0B28C'),
        clayTint: role('#F3E2D8', '#40281C'),
        moss: role('#5E7D3A', '#93B46A'),
        mossText: role('#526D32', '#A7C681'),
        plum: role('#7A3E62', '#C287AB'),
        plumText: role('#7A3E62', '#D3A0C0'),
        amber: role('#B98317', '#D8A94A'),
        amberText: role('#875E0F', '#E0B968'),
        hatch: role('#C9C2AF', '#46524D'),
      },
    },
  },
})

/** The look: Chakra's base with our tokens and recipes. Two radii, hairlines, one accent. */
export const system = createSystem(mergeConfigs(defaultBaseConfig, config))
