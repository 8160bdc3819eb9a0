import { definePreset } from '@primeuix/themes'
import badge from '@primeuix/themes/aura/badge'
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import checkbox from '@primeuix/themes/aura/checkbox'
import dialog from '@primeuix/themes/aura/dialog'
import iconfield from '@primeuix/themes/aura/iconfield'
import inputnumber from '@primeuix/themes/aura/inputnumber'
import inputtext from '@primeuix/themes/aura/inputtext'
import popover from '@primeuix/themes/aura/popover'
import ripple from '@primeuix/themes/aura/ripple'
import select from '@primeuix/themes/aura/select'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import textarea from '@primeuix/themes/aura/textarea'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import virtualscroller from '@primeuix/themes/aura/virtualscroller'

/** The tokens of the components that are used here, and of what these use: the landing page carries no others. */
const Aura = {
  ...base,
  components: {
    badge,
    button,
    checkbox,
    dialog,
    iconfield,
    inputnumber,
    inputtext,
    popover,
    ripple,
    select,
    selectbutton,
    textarea,
    togglebutton,
    virtualscroller,
  },
}

const ramp = {
  50: '#f6f1e8', 100: '#efe8dc', 200: '#ddd5c7', 300: '#b9b1a4', 400: '#857c70', 500: '#23292e', 600: '#20262a',
  700: '#1d2226', 800: '#181c20', 900: '#121518', 950: '#0c0e10',
}
const grey = {
  0: '#ffffff', 50: '#fffefb', 100: '#fbf8f2', 200: '#efe8dc', 300: '#d9d0c1', 400: '#b0a799', 500: '#857c70',
  600: '#6a655e', 700: '#545a5c', 800: '#343b41', 900: '#23292e', 950: '#1d2226',
}

/**
 * The house's tokens as PrimeVue understands them. Colours come from the page's own variables, so that the bench can
 * turn dark.
 */
const preset = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '3px', sm: '6px', md: '9px', lg: '12px', xl: '16px' } },
  semantic: {
    primary: ramp,
    focusRing: { width: '2.5px', style: 'solid', color: 'var(--focus)', offset: '2px', shadow: 'none' },
    transitionDuration: '0.12s',
    formField: { paddingX: '0.7rem', paddingY: '0.5rem', borderRadius: '{border.radius.md}' },
    colorScheme: {
      light: {
        surface: grey,
        primary: {
          color: 'var(--action)',
          contrastColor: 'var(--action-ink)',
          hoverColor: 'var(--action)',
          activeColor: 'var(--action)',
        },
        text: {
          color: 'var(--ink)',
          hoverColor: 'var(--ink)',
          mutedColor: 'var(--soft)',
          hoverMutedColor: 'var(--soft)',
        },
        content: {
          background: 'var(--sheet)',
          borderColor: 'var(--line)',
          color: 'var(--ink)',
          hoverBackground: 'var(--action-soft)',
        },
        formField: {
          background: 'var(--sheet)',
          borderColor: 'var(--line-strong)',
          hoverBorderColor: 'var(--action)',
          focusBorderColor: 'var(--action)',
          color: 'var(--ink)',
          placeholderColor: 'var(--soft)',
          shadow: 'none',
          invalidBorderColor: 'var(--heat)',
        },
        overlay: {
          select: { background: 'var(--sheet)', borderColor: 'var(--line)' },
          modal: { background: 'var(--sheet)', borderColor: 'var(--line)' },
        },
        list: {
          option: {
            focusBackground: 'var(--action-soft)',
            selectedBackground: 'var(--action-soft)',
            selectedColor: 'var(--ink)',
            selectedFocusBackground: 'var(--action-soft)',
            selectedFocusColor: 'var(--ink)',
          },
        },
      },
    },
  },
  components: {
    button: {
      root: { borderRadius: '12px', label: { fontWeight: '650' }, paddingX: '1.05rem', paddingY: '0.62rem' },
      colorScheme: {
        light: {
          root: {
            secondary: {
              background: 'var(--sheet)',
              hoverBackground: 'var(--action-soft)',
              activeBackground: 'var(--action-soft)',
              borderColor: 'var(--ink)',
              hoverBorderColor: 'var(--ink)',
              activeBorderColor: 'var(--ink)',
              color: 'var(--ink)',
              hoverColor: 'var(--ink)',
              activeColor: 'var(--ink)',
            },
          },
        },
      },
    },
    togglebutton: {
      root: { padding: '0', borderRadius: '{border.radius.md}' },
      content: { padding: '0.5rem 0.7rem', borderRadius: '7px', checkedShadow: 'none' },
      colorScheme: {
        light: {
          root: {
            background: 'var(--sheet)',
            borderColor: 'var(--line-strong)',
            checkedBackground: 'var(--ink)',
            checkedColor: 'var(--sheet)',
            color: 'var(--ink)',
            hoverColor: 'var(--ink)',
            hoverBackground: 'var(--action-soft)',
            checkedBorderColor: 'var(--ink)',
          },
          content: { checkedBackground: 'transparent' },
        },
      },
    },
    dialog: { root: { borderRadius: '14px' }, title: { fontSize: '1.2rem', fontWeight: '700' } },
  },
})

// The page turns dark by its own variables, never by the reader's system setting.
export default { preset, options: { darkModeSelector: '.never-dark' } }
