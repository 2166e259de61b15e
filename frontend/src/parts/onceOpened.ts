import { type Ref, ref, watch } from 'vue'

/** Whether something was opened yet, *shown* being true: what opens is loaded when it is first wanted. */
export function onceOpened(shown: Ref<boolean>): Ref<boolean> {
  const met = ref(shown.value)
  watch(shown, (now) => (met.value ||= now))
  return met
}
