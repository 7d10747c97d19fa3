<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'

/** Arrows from where courses stand to where suggestions would move them; drawn over the sheet they lie in. */
const props = defineProps<{ sheet: HTMLElement | undefined }>()
const suggestions = useSuggestions()
const talk = useTalk()

interface Arrow {
  key: string
  of: string
  path: string
}
const arrows = shallowRef<Arrow[]>([])
const size = shallowRef({ width: 0, height: 0 })

/** The inner edges of two places, and a soft curve between them. */
function curve(sheet: DOMRect, from: DOMRect, to: DOMRect): string {
  const isRight = to.left >= from.right
  const start = {
    x: (isRight ? from.right : from.left) - sheet.left,
    y: from.top + from.height / 2 - sheet.top
  }
  const end = {
    x: (isRight ? to.left - 2 : to.right + 2) - sheet.left,
    y: to.top + to.height / 2 - sheet.top
  }
  const bend = Math.max(14, Math.abs(end.x - start.x) / 2) * (isRight ? 1 : -1)
  return `M ${start.x} ${start.y} C ${start.x + bend} ${start.y}, ${end.x - bend} ${end.y}, ${end.x} ${end.y}`
}
function draw(): void {
  const { sheet } = props
  if (!sheet) return
  const frame = sheet.getBoundingClientRect()
  size.value = { width: sheet.scrollWidth, height: sheet.scrollHeight }
  const box = (selector: string) => sheet.querySelector(selector)?.getBoundingClientRect()
  arrows.value = suggestions.ghosts.flatMap(({ placed, course, term, from }): Arrow[] => {
    if (!from) return []
    const start = box(`[data-place="${course}@${from}"]`) ?? box(`[data-ghost="${course}@${from}"]`)
    const end = box(`[data-ghost="${course}@${term}"]`)
    if (!start || !end) return []
    const of = `suggestion-${placed.suggestion.id}`
    return [{ key: `${of} ${course}`, of, path: curve(frame, start, end) }]
  })
}
watch([() => suggestions.ghosts, () => suggestions.effects, () => props.sheet], draw, { flush: 'post' })
useResizeObserver(() => props.sheet, draw)
onMounted(draw)
</script>

<template>
  <svg v-if="arrows.length" class="arrows" :width="size.width" :height="size.height" aria-hidden="true">
    <defs>
      <marker
        id="arrow-end"
        viewBox="0 0 8 8"
        refX="7"
        refY="4"
        markerWidth="7"
        markerHeight="7"
        orient="auto"
      >
        <path d="M 0.5 0.5 L 7.5 4 L 0.5 7.5" fill="none" class="tip" />
      </marker>
    </defs>
    <path
      v-for="one in arrows"
      :key="one.key"
      :d="one.path"
      :class="{ lit: talk.lit === one.of }"
      marker-end="url(#arrow-end)"
    />
  </svg>
</template>

<style scoped>
.arrows {
  position: absolute;
  inset: 0;
  z-index: 1;
  pointer-events: none;
}
.arrows > path {
  fill: none;
  stroke: var(--ember);
  stroke-width: 1.5;
}
.arrows > .lit {
  stroke-width: 2.5;
}
.tip {
  stroke: var(--ember);
  stroke-width: 1.5;
}
</style>
