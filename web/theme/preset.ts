import { definePreset } from '@primeuix/themes';
import Aura from '@primeuix/themes/aura';

/** Colours with one meaning each; see tokens.css for the same values outside PrimeVue. */
const cobalt = {
  50: '#EEF3F8',
  100: '#D5E2EE',
  200: '#A9C3DB',
  300: '#7CA3C7',
  400: '#4F80AC',
  500: '#1F4E79',
  600: '#1B446A',
  700: '#163957',
  800: '#112D45',
  900: '#0C2032',
  950: '#081622',
};
const paper = {
  0: '#FFFDF8',
  50: '#F5F2EA',
  100: '#EEE7DA',
  200: '#D9D3C5',
  300: '#C1BBAD',
  400: '#8C8E88',
  500: '#59636A',
  600: '#4A535A',
  700: '#3A4248',
  800: '#2B3238',
  900: '#1F262B',
  950: '#15191C',
};
/** In the order the kit counts in: 0 the lightest, whichever theme it is. */
const lamp = {
  0: '#F7F3E8',
  50: '#EDE8DC',
  100: '#DEDCD3',
  200: '#CFD2CF',
  300: '#BCC3C4',
  400: '#A7B0B4',
  500: '#7F8B92',
  600: '#525D66',
  700: '#38414A',
  800: '#262D32',
  900: '#1E2428',
  950: '#15191C',
};

/** Ember, for the beam and danger; a quiet second choice in ink on the ground it stands on. */
const buttons = ([ground, over, on]: [string, string, string], [ink, rule, line]: [string, string, string]) => ({
  root: {
    danger: {
      background: ground,
      hoverBackground: over,
      activeBackground: over,
      borderColor: ground,
      hoverBorderColor: over,
      activeBorderColor: over,
      color: on,
      hoverColor: on,
      activeColor: on,
    },
  },
  outlined: {
    primary: { borderColor: line },
    danger: { color: ground, borderColor: ground },
    secondary: { color: ink, borderColor: rule },
  },
  text: { secondary: { color: ink } },
});

/** One of a few: those not chosen as paper, the chosen one as ink. */
const toggles = ([ground, rule, ink]: [string, string, string], [on, onText]: [string, string]) => ({
  root: {
    background: ground,
    hoverBackground: ground,
    borderColor: rule,
    color: ink,
    hoverColor: ink,
    checkedColor: onText,
    checkedBorderColor: on,
  },
  content: { checkedBackground: on },
});

/** PrimeVue in workshop paper and metal: small radius, one-pixel rules, no shadows. */
export const untoPreset = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '2px', sm: '3px', md: '4px', lg: '4px', xl: '4px' } },
  semantic: {
    primary: cobalt,
    focusRing: { width: '3px', style: 'solid', color: 'var(--unto-action)', offset: '2px', shadow: 'none' },
    formField: { paddingX: '0.75rem', paddingY: '0.6rem', shadow: 'none' },
    overlay: {
      select: { shadow: 'none' },
      popover: { shadow: 'none' },
      modal: { shadow: 'none', borderRadius: '4px' },
    },
    colorScheme: {
      light: {
        surface: paper,
        primary: { color: '#1F4E79', contrastColor: '#FFFDF8', hoverColor: '#163957', activeColor: '#112D45' },
        formField: {
          background: '#FFFDF8',
          borderColor: '#8C8E88',
          hoverBorderColor: '#59636A',
          color: '#1F262B',
          placeholderColor: '#59636A',
          disabledBackground: '#EEE7DA',
          disabledColor: '#59636A',
          invalidBorderColor: '#B23A12',
        },
        text: { color: '#1F262B', mutedColor: '#59636A', hoverColor: '#1F262B', hoverMutedColor: '#3A4248' },
        content: { background: '#FFFDF8', borderColor: '#D9D3C5', color: '#1F262B' },
      },
      dark: {
        surface: lamp,
        primary: { color: '#8DB8E2', contrastColor: '#15191C', hoverColor: '#A9CAEA', activeColor: '#C3DAF0' },
        formField: {
          background: '#15191C',
          borderColor: '#7F8B92',
          hoverBorderColor: '#A7B0B4',
          color: '#EDE8DC',
          placeholderColor: '#A7B0B4',
          disabledBackground: '#262D32',
          disabledColor: '#A7B0B4',
          invalidBorderColor: '#F0916E',
        },
        text: { color: '#EDE8DC', mutedColor: '#A7B0B4', hoverColor: '#F7F3E8', hoverMutedColor: '#CFD2CF' },
        content: { background: '#1E2428', borderColor: '#38414A', color: '#EDE8DC' },
      },
    },
  },
  components: {
    button: {
      root: { label: { fontWeight: '700' } },
      colorScheme: {
        light: buttons(['#B23A12', '#8F2E0E', '#FFFDF8'], ['#3A4248', '#8C8E88', '#4F80AC']),
        dark: buttons(['#F0916E', '#F5AD92', '#15191C'], ['#CFD2CF', '#7F8B92', '#7CA3C7']),
      },
    },
    togglebutton: {
      root: { padding: '0', checkedBackground: 'transparent', borderRadius: '4px', fontWeight: '400' },
      content: { padding: '0 1rem', borderRadius: '3px', checkedShadow: 'none' },
      colorScheme: {
        light: toggles(['#FFFDF8', '#8C8E88', '#1F262B'], ['#1F262B', '#F5F2EA']),
        dark: toggles(['#1E2428', '#7F8B92', '#EDE8DC'], ['#EDE8DC', '#15191C']),
      },
    },
    slider: {
      track: { size: '4px', borderRadius: '2px' },
      handle: {
        width: '18px',
        height: '18px',
        borderRadius: '4px',
        background: 'var(--unto-action)',
        hoverBackground: 'var(--unto-action)',
        content: {
          width: '0',
          height: '0',
          background: 'transparent',
          hoverBackground: 'transparent',
          shadow: 'none',
        },
      },
    },
    datatable: {
      colorScheme: { light: { root: { borderColor: '#D9D3C5' } }, dark: { root: { borderColor: '#38414A' } } },
      headerCell: { background: 'transparent' },
      row: { background: 'transparent' },
    },
  },
});
