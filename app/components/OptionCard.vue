<script setup lang="ts">
import { seatsLeft, sectionsOf, type Option, type OptionClash } from '#core/week'
import { DAY_NAMES, clockTime } from '#wire/when'
import { KIND_WORDS, sectionHours } from '#wire/words'

/** An option of a course: its hours in small, its seats, and what it would clash with. */
const props = defineProps<{
  option: Option
  hue: number
  picked: boolean
  clashes: OptionClash[]
  disabled: boolean
  scale: { from: number; to: number }
  why?: string | undefined
}>()
defineEmits<{ pick: []; preview: [on: boolean] }>()
const sections = computed(() => sectionsOf(props.option))
const left = computed(() => seatsLeft(props.option))
const capacity = computed(() =>
  Math.min(...sections.value.filter((s) => s.capacity - s.taken === left.value).map((s) => s.capacity))
)
const waiting = computed(() => Math.max(...sections.value.map((s) => s.waiting)))
const lineFull = computed(
  () => left.value <= 0 && sections.value.some((s) => s.capacity === s.taken && s.waiting >= s.waitCapacity)
)
const clash = computed(() => {
  const first = props.clashes[0]
  if (!first) return ''
  const days = first.clash.days.map((d) => DAY_NAMES[d]).join(' ')
  return `meets ${first.with.course}${first.with.kind === 'lecture' ? '' : ` ${KIND_WORDS[first.with.kind]}`} ${days} ${clockTime(first.clash.start)}`
})
const seats = computed(() =>
  left.value > 0
    ? `${left.value} of ${capacity.value} left`
    : waiting.value
      ? `full · ${waiting.value} in line`
      : 'full'
)
const room = (s: Option['main']) => s.meetings[0]?.room ?? ''
const HALVES: Record<string, string> = { first: 'first half', second: 'second half' }
</script>

<template>
  <button
    class="option"
    :class="[`hue-${hue}`, { picked, clash: clashes.length, full: left <= 0, struck: lineFull }]"
    :aria-pressed="picked"
    :aria-disabled="disabled || undefined"
    :title="why"
    @click="disabled || $emit('pick')"
    @mouseenter="$emit('preview', true)"
    @mouseleave="$emit('preview', false)"
    @focus="$emit('preview', true)"
    @blur="$emit('preview', false)"
  >
    <span class="top">
      <strong class="code">{{ option.main.code }}</strong>
      <span class="small">{{ seats }}</span>
    </span>
    <SmallWeek :sections="sections" :hue="hue" :clashing="clashes.length > 0" :scale="scale" />
    <span v-for="section in sections" :key="section.code" class="line">
      <template v-if="section.parent">{{ KIND_WORDS[section.kind] }} {{ section.code }} </template
      >{{ sectionHours(section) }}
      <template v-if="HALVES[section.half]"> · {{ HALVES[section.half] }}</template>
      <template v-if="room(section)"> · {{ room(section) }}</template>
    </span>
    <span class="line quiet"
      >{{ option.course }}-{{ option.main.number }} · {{ option.main.instructors.join(', ') }}</span
    >
    <span v-if="clash" class="line stops">{{ clash }}</span>
    <span v-if="picked" class="line"><strong>picked</strong></span>
    <span v-else-if="option.main.block" class="line">block {{ option.main.block }}</span>
    <span v-if="why" class="visually-hidden">{{ why }}</span>
  </button>
</template>

<style scoped>
.option {
  flex: 0 0 184px;
  display: flex;
  flex-direction: column;
  gap: 1px;
  text-align: left;
  border: 1px dashed var(--rule);
  border-radius: 9px;
  padding: 7px 10px;
  background: var(--card);
  font-size: 12px;
}
.option:hover {
  border-color: var(--hue);
}
.option.clash {
  background: var(--paper);
}
.option.full {
  background: repeating-linear-gradient(135deg, var(--paper) 0 7px, var(--card) 7px 14px);
}
.option.struck .code {
  text-decoration: line-through;
}
.option.picked {
  border: 2px solid var(--hue);
  padding: 6px 9px;
  background: color-mix(in srgb, var(--hue) 10%, var(--card));
}
.option[aria-disabled] {
  cursor: default;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.code {
  font-family: var(--display);
  font-size: 14.5px;
}
.line {
  line-height: 1.35;
}
</style>
