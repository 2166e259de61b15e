import { useToast } from 'primevue/usetoast'

/** Say for a while what was done, with a way to take it back. */
export function useTold() {
  const toast = useToast()
  return (said: string, undo?: () => unknown) =>
    toast.add({
      severity: 'secondary',
      summary: said,
      data: { undo },
      life: undo ? 9000 : 5000,
      group: 'told',
    } as never)
}
