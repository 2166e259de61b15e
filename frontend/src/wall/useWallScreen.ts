import { onKeyStroke, useFullscreen, useSwipe } from '@vueuse/core'
import { onBeforeUnmount, ref, type Ref } from 'vue'

interface Moved {
  forward: () => unknown
  back: () => unknown
}

/**
 * How what is on the wall is moved on: by the keys of a clicker, a click or a finger; more keys of a page's own. The bar comes with
 * the mouse and goes again.
 */
export function useWallScreen(wall: Ref<HTMLElement | null>, moved: Moved, more: Record<string, () => unknown>) {
  const { toggle: fullScreen } = useFullscreen(document.documentElement)
  const chrome = ref(false)
  const keys: Record<string, () => unknown> = {
    ' ': moved.forward,
    ArrowRight: moved.forward,
    ArrowDown: moved.forward,
    PageDown: moved.forward,
    Enter: moved.forward,
    Backspace: moved.back,
    ArrowLeft: moved.back,
    ArrowUp: moved.back,
    PageUp: moved.back,
    f: fullScreen,
    ...more,
  }
  onKeyStroke(Object.keys(keys), (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const inBar =
      event.target instanceof HTMLElement && !!event.target.closest('button, [role=combobox], [role=option]')
    if (inBar && [' ', 'Enter', 'ArrowUp', 'ArrowDown'].includes(event.key)) return
    event.preventDefault()
    void keys[event.key]?.()
  })

  let hiding: ReturnType<typeof setTimeout> | undefined
  function stir(): void {
    chrome.value = true
    clearTimeout(hiding)
    hiding = setTimeout(() => (chrome.value = false), 3500)
  }
  onBeforeUnmount(() => clearTimeout(hiding))

  /** A tap: on the left edge one line back, anywhere else the next. */
  function onClick(event: MouseEvent): void {
    void (event.clientX < window.innerWidth / 8 ? moved.back() : moved.forward())
  }
  // A finger drawn to the right takes a line back, to the left it uncovers the next.
  useSwipe(wall, {
    onSwipeEnd: (_, direction) => {
      if (direction === 'left') void moved.forward()
      if (direction === 'right') void moved.back()
    },
  })
  return { chrome, stir, onClick, fullScreen }
}
