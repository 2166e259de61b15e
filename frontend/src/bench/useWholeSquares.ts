import { onBeforeUnmount, onMounted, type Ref, ref } from 'vue'

const SQUARE = 22 // pixels, as --square on the paper

/**
 * The room below an element that makes it whole squares high, so that what follows sits in the squares of the paper.
 */
export function useWholeSquares(element: Ref<HTMLElement | null>) {
  const below = ref(0)
  const observer = new ResizeObserver(([entry]) => {
    const height = entry?.contentRect.height ?? 0
    below.value = Math.ceil(height / SQUARE - 0.001) * SQUARE - height
  })
  onMounted(() => element.value && observer.observe(element.value))
  onBeforeUnmount(() => observer.disconnect())
  return below
}
