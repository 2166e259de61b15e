import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import checkbox from '@primeuix/themes/aura/checkbox'
import dialog from '@primeuix/themes/aura/dialog'
import inputnumber from '@primeuix/themes/aura/inputnumber'
import inputtext from '@primeuix/themes/aura/inputtext'
import menu from '@primeuix/themes/aura/menu'
import select from '@primeuix/themes/aura/select'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import tabs from '@primeuix/themes/aura/tabs'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import toggleswitch from '@primeuix/themes/aura/toggleswitch'
import { definePreset } from '@primeuix/themes'

// The desk in PrimeVue's design tokens. Only the components in use are loaded; a new one is added here.
export const desk = definePreset(
  {
    ...base,
    components: {
      button,
      checkbox,
      dialog,
      inputnumber,
      inputtext,
      menu,
      select,
      selectbutton,
      tabs,
      togglebutton,
      toggleswitch,
    },
  },
  {
    primitive: { borderRadius: { xs: '2px', sm: '3px', md: '3px', lg: '4px', xl: '4px' } },
    semantic: {
      transitionDuration: '0.12s',
      focusRing: { width: '3px', style: 'solid', color: '#f2b84b', offset: '2px' },
      primary: {
        50: '#eef3f5',
        100: '#d3dfe4',
        200: '#b3c6ce',
        300: '#8fa9b4',
        400: '#64808d',
        500: '#31414c',
        600: '#2b3943',
        700: '#24303a',
        800: '#1d2a33',
        900: '#182229',
        950: '#10181d',
      },
      colorScheme: {
        light: {
          primary: { color: '#24303a', contrastColor: '#fcfbf5', hoverColor: '#31414c', activeColor: '#1d2a33' },
          formField: {
            background: '#1a242c',
            borderColor: '#64808d',
            hoverBorderColor: '#8fa9b4',
            focusBorderColor: '#f2b84b',
            color: '#fcfbf5',
            placeholderColor: '#a9bac2',
            shadow: 'none',
          },
          overlay: { modal: { background: '#fcfbf5', borderColor: '#24303a', color: '#1d2a33' } },
        },
      },
    },
    components: {
      button: { root: { borderRadius: '3px', paddingX: '0.9rem', paddingY: '0.45rem', label: { fontWeight: '700' } } },
      togglebutton: {
        root: { padding: '0.15rem', borderRadius: '3px' },
        content: { padding: '0.1rem 0.5rem', borderRadius: '2px' },
        colorScheme: {
          light: {
            root: {
              background: '#1a242c',
              checkedBackground: '#1a242c',
              hoverBackground: '#31414c',
              borderColor: '#64808d',
              checkedBorderColor: '#64808d',
              color: '#b4c4cc',
              hoverColor: '#f1f4f2',
              checkedColor: '#1d2a33',
            },
            content: { checkedBackground: '#fcfbf5' },
          },
        },
      },
      tabs: {
        tablist: { background: 'transparent', borderWidth: '0' },
        tab: {
          background: 'transparent',
          hoverBackground: 'transparent',
          activeBackground: 'transparent',
          borderWidth: '0',
          activeBorderColor: 'transparent',
          color: '#b4c4cc',
          hoverColor: '#f1f4f2',
          activeColor: '#f1f4f2',
          padding: '0.5rem 0.6rem',
          fontWeight: '400',
        },
        tabpanel: { background: 'transparent', padding: '0.4rem 0 0', color: 'inherit' },
        activeBar: { height: '2px', bottom: '4px', background: '#f1f4f2' },
      },
      menu: {
        root: { background: '#fcfbf5', borderColor: '#24303a', color: '#1d2a33', borderRadius: '3px' },
        item: { color: '#1d2a33', focusBackground: '#dfe7ea', focusColor: '#1d2a33' },
      },
      dialog: { root: { borderRadius: '3px' }, title: { fontSize: '1.2rem', fontWeight: '700' } },
    },
  },
)
