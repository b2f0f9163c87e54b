import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'

// Petrol on bone by daylight, petrol on soot in the panel room; square corners, generous targets.
export const workshop = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '2px', sm: '2px', md: '3px', lg: '3px', xl: '4px' } },
  semantic: {
    primary: {
      50: '#e9f4f3',
      100: '#cbe5e3',
      200: '#9fcfcb',
      300: '#6cb4af',
      400: '#3f9792',
      500: '#1f7d78',
      600: '#0f6662',
      700: '#0b524f',
      800: '#083f3d',
      900: '#062f2e',
      950: '#031d1c',
    },
    colorScheme: {
      light: {
        text: { mutedColor: '#5d584e', hoverMutedColor: '#454139' },
        primary: { color: '#0f6662', contrastColor: '#ffffff', hoverColor: '#0b524f', activeColor: '#083f3d' },
        surface: {
          0: '#fffdf8',
          50: '#f7f4ec',
          100: '#efeadf',
          200: '#ded7c8',
          300: '#c7bfae',
          400: '#a39b8b',
          500: '#7d776a',
          600: '#5d584e',
          700: '#454139',
          800: '#2f2c27',
          900: '#1f1d1a',
          950: '#121110',
        },
      },
      dark: {
        text: { mutedColor: '#aab4b3', hoverMutedColor: '#cfd5d4' },
        primary: { color: '#6cc4bd', contrastColor: '#06201f', hoverColor: '#8ad4ce', activeColor: '#a9e1dc' },
        surface: {
          0: '#ffffff',
          50: '#e8ebea',
          100: '#cfd5d4',
          200: '#aab4b3',
          300: '#84908f',
          400: '#626f6e',
          500: '#4a5655',
          600: '#394443',
          700: '#2c3635',
          800: '#212929',
          900: '#171d1d',
          950: '#0e1313',
        },
      },
    },
  },
  // Quiet is not faint: what can be pressed is readable at arm's length.
  components: {
    togglebutton: {
      colorScheme: {
        light: { root: { color: '{text.muted.color}' } },
        dark: { root: { color: '{text.muted.color}' } },
      },
    },
    button: {
      colorScheme: {
        light: {
          outlined: { secondary: { color: '{surface.800}', borderColor: '{surface.400}' } },
          text: { secondary: { color: '{surface.700}' } },
        },
        dark: {
          outlined: { secondary: { color: '{surface.50}', borderColor: '{surface.400}' } },
          text: { secondary: { color: '{surface.100}' } },
        },
      },
    },
  },
})
