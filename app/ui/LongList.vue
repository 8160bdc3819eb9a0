<script setup lang="ts" generic="T">
import { defaultRangeExtractor, useWindowVirtualizer, type Range } from '@tanstack/vue-virtual'
import { useResizeObserver } from '@vueuse/core'
import type { ClassValue, PropType, VNodeChild } from 'vue'
import { inTurn } from './turns'

/**
 * The one long list: only rows near the window are drawn, however many there are, each measured once it is. A row is a
 * grid; its columns are the page's, told by `--columns`. What holds the focus stays, wherever the page is turned to.
 */
const { items, keyOf, rowHeight = 62, rowClass = () => '', kept } = defineProps<{
  items: readonly T[]
  keyOf: (item: T) => string
  /** About how high a row is, px, until it is measured. */
  rowHeight?: number
  rowClass?: (item: T) => ClassValue
  /** A row that is drawn wherever the page is turned to: the focus is to go there. */
  kept?: string
}>()

const { default: drawRow } = defineSlots<{ default(props: { readonly item: T }): VNodeChild }>()
/** A row for itself: it is drawn anew for what it shows, and not because the list moves. */
const RowBody = defineComponent({
  props: { item: { type: null as unknown as PropType<T>, required: true } },
  setup: props => () => drawRow({ item: props.item }),
})

/** Rows drawn above and below the window, so that turning the page shows no gap. */
const BEYOND = 5
/** Rows that are drawn in one frame while the list opens. */
const AT_ONCE = 2
const list = useTemplateRef<HTMLElement>('list')
/** How far from the head of the page it begins, px; what stands above it may grow. */
const begins = ref(0)
function place() {
  if (list.value) begins.value = list.value.getBoundingClientRect().top + window.scrollY
}
useResizeObserver(import.meta.client ? document.body : undefined, place)
const held = ref<string>()
/** Rows that stay, by their place now: an item takes the focus with it when its place changes. */
const staying = computed(() => items.flatMap((item, index) => [held.value, kept].includes(keyOf(item)) ? [index] : []))
const rows = useWindowVirtualizer(computed(() => ({
  count: items.length,
  estimateSize: () => rowHeight,
  overscan: BEYOND,
  scrollMargin: begins.value,
  getItemKey: (index: number) => keyOf(items[index]!),
  // What the browser laid out is taken when it tells of it; asking for it at once would make it lay out row by row.
  measureElement: (row: Element, laidOut: ResizeObserverEntry | undefined, known) => {
    const item = items[known.indexFromElement(row)]
    return laidOut?.borderBoxSize[0]?.blockSize ?? (item && known.itemSizeCache.get(keyOf(item))) ?? rowHeight
  },
  rangeExtractor: (range: Range) =>
    [...new Set([...defaultRangeExtractor(range), ...staying.value])].sort((a, b) => a - b),
})))
/**
 * The first rows come a few a frame: a slow phone shows the page sooner, and hears a finger meanwhile. Later ones come
 * as they are turned to.
 */
const come = ref(0)
function bringMore(): boolean {
  come.value += AT_ONCE
  const more = come.value < rows.value.getVirtualItems().length
  if (!more) come.value = Infinity
  return more
}
let stop = () => {}
onMounted(() => {
  stop = inTurn(bringMore)
})
onBeforeUnmount(() => stop())
const drawn = computed(() =>
  rows.value.getVirtualItems()
    .filter(({ index }, n) => index < items.length && (n < come.value || staying.value.includes(index))),
)
const measure = (row: unknown) => rows.value.measureElement(row as Element | null)
function hold(event: FocusEvent) {
  const item = items[Number((event.target as Element).closest<HTMLElement>('[data-index]')?.dataset.index)]
  held.value = item && keyOf(item)
}
function letGo() {
  held.value = undefined
}
</script>

<template>
  <ul ref="list" class="ruled" :style="{ height: `${rows.getTotalSize()}px` }" @focusin="hold" @focusout="letGo">
    <li
      v-for="row in drawn"
      :key="String(row.key)"
      :ref="measure"
      :data-index="row.index"
      :aria-setsize="items.length"
      :aria-posinset="row.index + 1"
      :class="rowClass(items[row.index]!)"
      :style="{ transform: `translateY(${row.start - rows.options.scrollMargin}px)` }"
    >
      <RowBody :item="items[row.index]!" />
    </li>
  </ul>
</template>

<style scoped>
ul { position: relative; }
li {
  position: absolute;
  inset: 0 0 auto;
  display: grid;
  grid-template-columns: var(--columns);
  gap: var(--row-gap, 14px);
  align-items: center;
  padding: 9px 0;
}
</style>
