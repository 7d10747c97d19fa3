<script setup lang="ts">
import { inTheWay } from '#core/search'
import type { FoundLine } from './useFoundCourses'
import { count } from '#shared/words'
import { patternText } from '#shared/catalog/texts'
import { refusalText } from '#shared/registration/texts'

/** A course in a list: what it would count for, how it is offered, and the one thing in the way. */
const props = defineProps<{
  line: FoundLine
  termName: string
  published: boolean
  chosen: boolean
  /** Whether courses can be chosen here to be placed together. */
  mayChoose: boolean
}>()
const emit = defineEmits<{ choose: [on: boolean]; open: [] }>()
const college = useCollege()
const student = useStudent()
const bookmarks = useBookmarks()
const { hues } = useHues()

const course = computed(() => props.line.course)
const attempt = computed(() =>
  student.reading?.attempts.counted.find((one) => one.course === course.value.code)
)
const barrier = computed(() => inTheWay(props.line.refusals))
const standing = computed(() => {
  const there = attempt.value
  if (there) {
    const when = there.term ? ` · ${college.shortTerm(there.term)}` : ''
    if (there.status === 'earned') return `earned${there.grade ? ` with ${there.grade}` : ''}${when}`
    if (there.status === 'underWay')
      return `${there.detail === 'gradeDue' ? 'grade due' : 'under way'}${when}`
    return `${there.status === 'registered' ? 'registered' : student.say('on your route')}${when}`
  }
  if (props.line.there) return student.say('you have one that counts as it')
  return undefined
})
const offered = computed(() => {
  const { runs, options, seats } = props.line
  if (!runs) return `not in ${props.termName}`
  if (!props.published || !seats) return 'usually then'
  const mains = new Set(options.map((option) => option.main.code)).size
  return `${count(mains, 'section')} · ${seats.left} of ${seats.of} left`
})
const support = computed(() => college.view?.supportLabs.find((one) => one.course === course.value.code)?.lab)
const hueOf = (need: FoundLine['needs'][number]) => hues.value.get(areaKey(need.audit, need.area))?.hue ?? 0
</script>

<template>
  <li class="line" :class="{ idle: !line.runs }">
    <v-checkbox-btn
      v-if="mayChoose && (!line.there || course.repeatable)"
      class="choose"
      :model-value="chosen"
      :aria-label="`Choose ${course.code}`"
      @update:model-value="emit('choose', $event)"
    />
    <v-bare-btn class="name" data-line @click="emit('open')">
      <strong class="code display">{{ course.code }}</strong>
      <span>{{ course.title }}</span>
      <span class="quiet small">
        {{
          course.credits === course.creditsMost ? course.credits : `${course.credits}–${course.creditsMost}`
        }}
        cr</span
      >
    </v-bare-btn>
    <span class="serves">
      <template v-if="!line.there">
        <span
          v-for="need in line.needs"
          :key="need.key"
          :class="need.free ? 'quiet small' : `need hue-${hueOf(need)}`"
          >{{ need.title }}</span
        >
      </template>
      <span v-if="support" class="quiet small">with support: {{ support }}</span>
    </span>
    <span class="offer small">
      {{ offered }}
      <span class="quiet">{{ line.runs && published ? '' : patternText(course.offered) }}</span>
    </span>
    <span class="can small">
      <span v-if="standing" class="quiet">{{ standing }}</span>
      <template v-else-if="line.decision && line.runs">
        <span v-if="barrier" class="stops">{{ student.say(refusalText(barrier, college.zone)) }}</span>
        <span v-else>{{ student.say('you can take it') }}</span>
      </template>
    </span>
    <v-bare-btn
      v-if="student.own"
      class="star"
      :aria-pressed="bookmarks.starred(course.code)"
      :aria-label="`Star ${course.code}`"
      @click="bookmarks.star(course.code, !bookmarks.starred(course.code))"
    >
      <span aria-hidden="true">{{ bookmarks.starred(course.code) ? '★' : '☆' }}</span>
    </v-bare-btn>
  </li>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 22px minmax(220px, 1.1fr) minmax(140px, 1fr) 150px minmax(150px, 0.9fr) 26px;
  gap: 0 12px;
  align-items: center;
  padding: 5px 12px;
  border-top: 1px solid var(--rule);
  content-visibility: auto;
  contain-intrinsic-height: auto 40px;
}
.line:focus-within {
  background: color-mix(in srgb, var(--dusk-tint) 45%, var(--card));
}
.choose {
  grid-column: 1;
  grid-row: 1;
}
.name {
  grid-column: 2;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 7px;
}
.name:hover span:nth-child(2) {
  text-decoration: underline;
}
.serves {
  grid-column: 3;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 3px 5px;
}
.need {
  border: 1.5px dotted var(--hue);
  border-radius: 6px;
  padding: 0 6px;
  font-size: 12px;
}
.offer {
  grid-column: 4;
}
.can {
  grid-column: 5;
}
.star {
  grid-column: 6;
  font-size: 17px;
  line-height: 1;
  padding: 4px;
  color: var(--dusk);
}
.idle .code {
  font-weight: 500;
}
@media (max-width: 1000px) {
  .line {
    grid-template-columns: 22px minmax(0, 1fr) 26px;
  }
  .serves,
  .offer,
  .can {
    grid-column: 2;
  }
  .star {
    grid-column: 3;
    grid-row: 1;
  }
}
</style>
