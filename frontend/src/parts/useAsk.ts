import { useConfirm } from 'primevue/useconfirm'

/** Ask beside the button that was pressed, before something goes for good. */
export function useAsk() {
  const confirm = useConfirm()
  return (event: Event, message: string, yes: string, act: () => unknown) =>
    confirm.require({
      target: event.currentTarget as HTMLElement,
      message,
      acceptLabel: yes,
      rejectLabel: 'Keep',
      acceptProps: { severity: 'danger' },
      rejectProps: { variant: 'outlined' },
      defaultFocus: 'reject',
      accept: () => void act(),
    })
}
