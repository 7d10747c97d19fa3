<script setup lang="ts">
import { ribbonOf } from '#core/week'
import { clockTime, duration } from '#shared/when'
import { sectionName } from '#shared/week/texts'
import { count } from '#shared/words'
import type { FoundCard } from './finding'

/** The weeks that were found, as a gallery; or why there is none. */
defineProps<{ chosen: number; pointed: number | undefined }>()
const emit = defineEmits<{
  choose: [number: number]
  point: [number: number | undefined]
  make: [number: number]
}>()
const student = useStudent()
const finding = useFinding()
const { hueOf } = useHues()
const { mustText, openers, inConflict, conflict } = useMusts()
const scale = computed(() => {
  const { from, to } = ribbonOf(finding.sections.filter((one) => !one.officeOnly))
  return { from, to }
})
const figuresText = ({ figures, risky }: FoundCard) =>
  [
    count(figures.days, 'day'),
    figures.firstStart === null ? 'no hours' : `from ${clockTime(figures.firstStart)}`,
    `${duration(figures.between)} between`,
    risky ? `${risky} at risk` : 'safe'
  ].join(' · ')
const unscheduled = ({ sections: list }: FoundCard) =>
  list
    .filter((one) => !one.meetings.length)
    .map((one) => `${one.course} at any time`)
    .join(', ')
const named = ({ sections: list }: FoundCard) =>
  list
    .filter((one) => one.parent === null)
    .map(sectionName)
    .join(', ')
function onArrow(event: KeyboardEvent) {
  const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 2, ArrowUp: -2 }[event.key]
  const all = [...document.querySelectorAll<HTMLElement>('.gallery .week')]
  const at = all.indexOf(document.activeElement as HTMLElement)
  if (!by || at < 0) return
  event.preventDefault()
  all[Math.max(0, Math.min(all.length - 1, at + by))]?.focus()
}
</script>

<template>
  <div class="gallery" @keydown="onArrow" @mouseleave="emit('point', undefined)">
    <button
      v-for="card in finding.cards"
      :key="card.number"
      class="card week"
      :class="{ on: card.number === chosen, pointed: card.number === pointed }"
      :aria-pressed="card.number === chosen"
      :aria-label="`Week ${card.number}: ${figuresText(card)}. ${named(card)}`"
      @click="emit('choose', card.number)"
      @dblclick="student.own && emit('make', card.number)"
      @mouseenter="emit('point', card.number)"
      @focus="emit('point', card.number)"
    >
      <span class="top"
        ><strong class="display">{{ card.number }}</strong
        ><span class="small">{{ figuresText(card) }}</span></span
      >
      <SmallWeek
        :sections="card.sections"
        :hue-of="(course: string) => hueOf(course).hue"
        :scale="scale"
        alone
      />
      <span v-if="unscheduled(card)" class="small quiet">{{ unscheduled(card) }}</span>
    </button>
    <div v-if="finding.counted && !finding.cards.length" class="card none">
      <p v-if="conflict">{{ conflict }}</p>
      <template v-if="conflict && !openers.length">
        <p>
          Letting go of one thing alone is not enough. Begin with one of these and see what is left in the
          way:
        </p>
        <ul v-if="student.own" class="musts">
          <li v-for="must in inConflict" :key="mustText(must)">
            {{ must.kind === 'group' ? 'without ' : '' }}{{ mustText(must) }}
            <v-text-btn @click="finding.letGo(must)">
              Let go<span class="visually-hidden"> of {{ mustText(must) }}</span>
            </v-text-btn>
          </li>
        </ul>
      </template>
      <p v-else-if="!finding.groups.length">Nothing is asked: take a course to find weeks.</p>
      <p v-else-if="!conflict">No week fits.</p>
    </div>
  </div>
</template>

<style scoped>
.musts {
  list-style: none;
  padding: 0;
  margin-top: 5px;
}
.musts li {
  padding: 3px 0;
}
.gallery {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(258px, 1fr));
  gap: 10px;
}
.week {
  padding: 6px 10px 8px;
  display: block;
  border-width: 2px;
  text-align: left;
}
.week.pointed {
  border-color: var(--ember);
}
.week.on {
  border-color: var(--dusk);
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  padding-bottom: 3px;
}
.top .display {
  font-size: 15px;
}
.none {
  grid-column: 1 / -1;
  padding: 16px;
}
</style>
