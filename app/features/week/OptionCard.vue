<script setup lang="ts">
import { sectionsOf, type Section } from '#core/week'
import { clockTime } from '#shared/when'
import {
  clashText,
  daysAndHours,
  repairText,
  seatsText,
  sectionHours,
  wayText,
  sectionName
} from '#shared/week/texts'
import { HALF_WORDS, KIND_WORDS } from '#shared/words'
import { refusalText } from '#shared/registration/texts'
import type { JudgedOption, OptionGroup } from './useWeekOptions'

/** Options of a course at the same hours: the week in small, and of each its seats and what stands against it. */
const props = defineProps<{
  group: OptionGroup
  hue: number
  disabled: boolean
  scale: { from: number; to: number }
  why?: string | undefined
  /** Courses whose picks come along, where it is of a block. */
  along?: readonly string[]
  /** The ways between campuses must fit. */
  travelHolds: boolean
}>()
const emit = defineEmits<{
  pick: [one: JudgedOption]
  repair: [one: JudgedOption]
  preview: [one: JudgedOption | undefined]
  about: [section: Section]
}>()
const college = useCollege()
const student = useStudent()
const best = computed(() => props.group.options[0]!)
const sections = computed(() => sectionsOf(best.value.option))
const alike = computed(() => props.group.options.length > 1)
const picked = computed(() => props.group.options.some((one) => one.picked))
const full = computed(() => props.group.options.every((one) => one.left <= 0))
const lineFull = ({ option, yours }: JudgedOption) =>
  !yours && sectionsOf(option).some((one) => one.capacity === one.taken && one.waiting >= one.waitCapacity)
/** Seats of the scarcest of its sections. */
function seats({ option, left, yours }: JudgedOption): string {
  if (yours) return student.say('your seat')
  const scarce = sectionsOf(option).reduce((a, b) => (b.capacity - b.taken < a.capacity - a.taken ? b : a))
  const free = scarce.capacity - scarce.taken
  if (free <= 0) return seatsText(scarce)
  if (left <= 0) return `${free} kept for others`
  return `${left} of ${scarce.capacity} left`
}
const room = (section: Section) =>
  section.meetings.find((one) => one.room)?.room ??
  (section.mode === 'inPerson' || section.mode === 'mixed' ? college.placeName(section) : '')
function lineOf(section: Section): string {
  const kind = section.parent ? `${KIND_WORDS[section.kind]} ${alike.value ? '' : section.number}`.trim() : ''
  const about = [sectionHours(section), HALF_WORDS[section.half], alike.value ? '' : room(section)]
  return [kind, about.filter(Boolean).join(' · ')].filter(Boolean).join(' ')
}
/** What stands against it, the gravest first; one line. */
const against = computed((): { text: string; grave: boolean } | undefined => {
  const { clashes, kept, ways, refusal } = best.value
  const hard = kept.find((one) => one.hard)
  const grave = (text: string) => ({ text, grave: true })
  if (clashes[0]) {
    const more = new Set(clashes.map((one) => one.with.course)).size - 1
    return grave(clashText(clashes[0]) + (more > 0 ? ` and ${more} more` : ''))
  }
  if (hard) return grave(`in ${hard.name}, ${daysAndHours(hard)}`)
  if (ways[0]) return { text: wayText(ways[0]), grave: props.travelHolds }
  if (refusal) return grave(student.say(refusalText(refusal, college.zone)))
  const soft = kept[0]
  return soft && { text: `in ${soft.name} from ${clockTime(soft.start)}`, grave: false }
})
</script>

<template>
  <article
    class="option"
    :class="[`hue-${hue}`, { picked, clash: best.apart || best.refusal, full, many: alike }]"
    @mouseleave="emit('preview', undefined)"
  >
    <component
      :is="alike ? 'div' : 'button'"
      class="body"
      :class="{ choose: !alike }"
      :aria-pressed="alike ? undefined : picked"
      :aria-disabled="(!alike && disabled) || undefined"
      :title="why"
      @click="alike || disabled || emit('pick', best)"
      @mouseenter="emit('preview', best)"
      @focus="alike || emit('preview', best)"
      @blur="alike || emit('preview', undefined)"
    >
      <span v-if="!alike" class="top">
        <strong class="code" :class="{ struck: lineFull(best) }">{{ sectionName(best.option.main) }}</strong>
        <span class="small">{{ seats(best) }}</span>
      </span>
      <span v-else class="top"><strong class="code">{{ group.options.length }} at these hours</strong></span>
      <SmallWeek
        :sections="sections"
        :hue-of="() => hue"
        :clashing="best.clashes.length > 0"
        :scale="scale"
      />
      <strong v-if="best.option.main.topic" class="line">{{ best.option.main.topic }}</strong>
      <span v-for="section in sections" :key="section.code" class="line">{{ lineOf(section) }}</span>
      <span v-if="!alike" class="line quiet"
        >{{ best.option.main.instructors.join(', ') || 'instructor to be named' }} ·
        {{ best.option.main.code }}</span
      >
      <span v-if="best.option.main.block" class="line"
        >block {{ best.option.main.block
        }}<template v-if="along?.length">, one choice with {{ along.join(', ') }}</template></span
      >
      <span v-if="against" class="line" :class="against.grave ? 'stops' : 'warns'">{{ against.text }}</span>
      <span v-if="why" class="visually-hidden">{{ why }}</span>
    </component>
    <ul v-if="alike">
      <li v-for="one in group.options" :key="one.option.key">
        <button
          class="choose row"
          :class="{ on: one.picked }"
          :aria-pressed="one.picked"
          :aria-disabled="disabled || undefined"
          @click="disabled || emit('pick', one)"
          @focus="emit('preview', one)"
          @blur="emit('preview', undefined)"
        >
          <span class="top">
            <strong class="code" :class="{ struck: lineFull(one) }">{{
              sectionName(one.option.main)
            }}</strong>
            <span class="small">{{ one.picked ? 'picked' : seats(one) }}</span>
          </span>
          <span class="line quiet"
            >{{ one.option.main.instructors.join(', ') || 'to be named'
            }}<template v-if="room(one.option.main)"> · {{ room(one.option.main) }}</template> ·
            {{ one.option.main.code }}</span
          >
          <span v-if="one.refusal && one !== best" class="line stops">{{
            student.say(refusalText(one.refusal, college.zone))
          }}</span>
        </button>
      </li>
    </ul>
    <p class="foot">
      <strong v-if="picked && !alike">picked</strong>
      <v-text-btn v-if="best.repair && !disabled && student.own" @click="emit('repair', best)">
        take it: {{ repairText(best.repair) }}
      </v-text-btn>
      <v-text-btn class="about" @click="emit('about', best.option.main)">
        about<span class="visually-hidden"> {{ best.option.course }}-{{ best.option.main.number }}</span>
      </v-text-btn>
    </p>
  </article>
</template>

<style scoped>
.option {
  position: relative;
  flex: 0 0 188px;
  display: flex;
  flex-direction: column;
  border: 1px dashed var(--quiet);
  border-radius: 9px;
  background: var(--card);
  font-size: 12px;
}
.option:hover {
  border-color: var(--hue);
}
.option.clash {
  background: var(--paper);
  border-color: var(--rule);
}
.option.full {
  background: repeating-linear-gradient(135deg, var(--paper) 0 7px, var(--card) 7px 14px);
}
.option.picked {
  border: 2px solid var(--hue);
  margin: -1px;
  background: color-mix(in srgb, var(--hue) 10%, var(--card));
}
.body {
  display: flex;
  flex-direction: column;
  gap: 1px;
  text-align: left;
  padding: 7px 10px 2px;
  border-radius: 9px;
}
.option.picked .body {
  padding: 7px 10px 2px;
}
.choose[aria-disabled] {
  cursor: default;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 6px;
}
.code {
  font-family: var(--display);
  font-size: 14.5px;
}
.struck {
  text-decoration: line-through;
}
.line {
  line-height: 1.35;
}
.warns {
  color: var(--ember);
}
ul {
  list-style: none;
  padding: 0 6px;
}
.row {
  width: 100%;
  border-radius: 6px;
  padding: 2px 4px;
  border-top: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
}
.row:hover {
  background: var(--dusk-tint);
}
.row.on {
  background: color-mix(in srgb, var(--hue) 16%, var(--card));
}
.foot {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: end;
  margin-top: auto;
  padding: 0 10px 3px;
}
.foot .textlink {
  font-size: 12px;
  line-height: 1.3;
}
.about {
  display: inline-block;
  min-height: 24px;
  padding: 5px 0 0 8px;
  margin-left: auto;
  font-weight: 400;
  color: var(--quiet);
}
.top .code {
  font-size: 13.5px;
  white-space: nowrap;
}
.top .small {
  text-align: end;
}
</style>
