import { useResizeObserver } from '@vueuse/core'
import { ref, type Ref } from 'vue'

/**
 * How wide a box is laid out, px; 0 until it is. It waits for the browser to say so: asked while a page is put
 * together, the whole page would be laid out in one go with it.
 */
export function useWidth(box: Ref<HTMLElement | undefined>): Readonly<Ref<number>> {
  const width = ref(0)
  useResizeObserver(box, ([now]) => {
    if (now) width.value = now.contentRect.width
  })
  return width
}
