import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import checkbox from '@primeuix/themes/aura/checkbox'
import confirmpopup from '@primeuix/themes/aura/confirmpopup'
import datatable from '@primeuix/themes/aura/datatable'
import dialog from '@primeuix/themes/aura/dialog'
import drawer from '@primeuix/themes/aura/drawer'
import fileupload from '@primeuix/themes/aura/fileupload'
import inputnumber from '@primeuix/themes/aura/inputnumber'
import inputtext from '@primeuix/themes/aura/inputtext'
import menu from '@primeuix/themes/aura/menu'
import progressbar from '@primeuix/themes/aura/progressbar'
import select from '@primeuix/themes/aura/select'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import skeleton from '@primeuix/themes/aura/skeleton'
import tabs from '@primeuix/themes/aura/tabs'
import textarea from '@primeuix/themes/aura/textarea'
import toast from '@primeuix/themes/aura/toast'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import toggleswitch from '@primeuix/themes/aura/toggleswitch'
import message from '@primeuix/themes/aura/message'
import { definePreset } from '@primeuix/themes'

// The desk in PrimeVue's design tokens. Every colour is one of tokens.css, which knows the light desk and the dark one;
// what
// opens over the desk is a slip of paper. Only the components in use are loaded; a new one is added here.
const slip = { background: 'var(--paper)', borderColor: 'var(--ink)', color: 'var(--ink)' }
const told = {
  background: 'var(--paper)',
  borderColor: 'var(--ink)',
  color: 'var(--ink)',
  detailColor: 'var(--ink)',
  shadow: '0 3px 16px rgb(0 0 0 / 35%)',
}
const scheme = {
  surface: {
    0: 'var(--field)',
    50: 'var(--field)',
    100: 'var(--shade)',
    200: 'var(--hair)',
    300: 'var(--hair)',
    400: 'var(--field-edge)',
    500: 'var(--ink-quiet)',
    600: 'var(--ink-quiet)',
    700: 'var(--ink)',
    800: 'var(--ink)',
    900: 'var(--ink)',
    950: 'var(--ink)',
  },
  primary: {
    color: 'var(--ink)',
    contrastColor: 'var(--paper)',
    hoverColor: 'var(--ink-lifted)',
    activeColor: 'var(--ink)',
  },
  highlight: {
    background: 'var(--ink)',
    focusBackground: 'var(--ink)',
    color: 'var(--paper)',
    focusColor: 'var(--paper)',
  },
  formField: {
    background: 'var(--field)',
    disabledBackground: 'var(--shade)',
    borderColor: 'var(--field-edge)',
    hoverBorderColor: 'var(--ink)',
    focusBorderColor: 'var(--ink)',
    invalidBorderColor: 'var(--ink-wrong)',
    color: 'var(--ink)',
    placeholderColor: 'var(--ink-quiet)',
    invalidPlaceholderColor: 'var(--ink-quiet)',
    iconColor: 'var(--ink-quiet)',
    shadow: 'none',
  },
  overlay: { select: slip, popover: slip, modal: slip },
}

export const desk = definePreset(
  {
    ...base,
    components: {
      button,
      checkbox,
      confirmpopup,
      datatable,
      dialog,
      drawer,
      fileupload,
      inputnumber,
      inputtext,
      menu,
      progressbar,
      select,
      selectbutton,
      skeleton,
      tabs,
      textarea,
      toast,
      togglebutton,
      toggleswitch,
      message,
    },
  },
  {
    primitive: { borderRadius: { xs: '2px', sm: '3px', md: '3px', lg: '4px', xl: '4px' } },
    semantic: {
      primary: {
        50: 'var(--shade)',
        100: 'var(--shade)',
        200: 'var(--field-edge)',
        300: 'var(--field-edge)',
        400: 'var(--ink-quiet)',
        500: 'var(--ink)',
        600: 'var(--ink)',
        700: 'var(--ink)',
        800: 'var(--ink)',
        900: 'var(--ink)',
        950: 'var(--ink)',
      },
      transitionDuration: '0.12s',
      focusRing: { width: '3px', style: 'solid', color: 'var(--focus)', offset: '2px' },
      formField: {
        paddingX: '0.5rem',
        paddingY: '0.22rem',
        focusRing: { width: '3px', style: 'solid', color: 'var(--focus)', offset: '1px', shadow: 'none' },
      },
      list: { option: { padding: '0.3rem 0.6rem' } },
      colorScheme: { light: scheme },
    },
    components: {
      button: { root: { borderRadius: '3px', paddingX: '0.9rem', paddingY: '0.4rem', label: { fontWeight: '700' } } },
      checkbox: { root: { width: '1.15rem', height: '1.15rem' } },
      select: { dropdown: { width: '1.9rem' } },
      inputnumber: { button: { width: '1.7rem' } },
      togglebutton: {
        root: { padding: '0', borderRadius: '3px', fontWeight: '400' },
        content: { padding: '0.15rem 0.6rem', borderRadius: '2px', checkedShadow: 'none' },
        colorScheme: {
          light: {
            root: {
              background: 'transparent',
              checkedBackground: 'transparent',
              hoverBackground: 'transparent',
              borderColor: 'currentColor',
              checkedBorderColor: 'currentColor',
              color: 'inherit',
              hoverColor: 'inherit',
              checkedColor: 'var(--paper)',
            },
            content: { checkedBackground: 'var(--ink)' },
          },
        },
      },
      toggleswitch: {
        colorScheme: { light: { root: { background: 'var(--field-edge)', hoverBackground: 'var(--ink-quiet)' } } },
      },
      tabs: {
        tablist: { background: 'transparent', borderWidth: '0' },
        tab: {
          background: 'transparent',
          hoverBackground: 'transparent',
          activeBackground: 'transparent',
          borderWidth: '0',
          activeBorderColor: 'transparent',
          color: 'var(--on-slate-quiet)',
          hoverColor: 'var(--on-slate)',
          activeColor: 'var(--on-slate)',
          padding: '0.5rem 0.6rem',
          fontWeight: '400',
        },
        tabpanel: { background: 'transparent', padding: '0.4rem 0 0', color: 'inherit' },
        activeBar: { height: '2px', bottom: '4px', background: 'var(--on-slate)' },
      },
      datatable: {
        headerCell: { padding: '0.3rem 0.7rem', background: 'transparent', hoverBackground: 'var(--shade)' },
        row: { background: 'transparent' },
        bodyCell: { padding: '0.3rem 0.7rem', borderColor: 'var(--hair)' },
      },
      drawer: { header: { padding: '0.9rem 1.3rem 0.4rem' }, title: { fontSize: '1.2rem', fontWeight: '700' } },
      dialog: { root: { borderRadius: '3px' }, title: { fontSize: '1.2rem', fontWeight: '700' } },
      progressbar: { root: { height: '0.4rem', background: 'var(--hair)' } },
      toast: {
        root: { width: 'min(27rem, calc(100vw - 24px))', borderRadius: '3px' },
        summary: { fontWeight: '400' },
        colorScheme: { light: { root: { blur: '0' }, secondary: told } },
      },
    },
  },
)
