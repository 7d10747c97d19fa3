<script setup lang="ts">
import type { SheetLine } from '#shared/registration/responses'
import { sessionText } from '#shared/registration/termLine'
import { sectionHours, sectionName } from '#shared/week/texts'
import { KIND_WORDS } from '#shared/words'

/** What a line is about: the course, its sections with their dates, what is given for it, and a note. */
const props = defineProps<{ line: SheetLine; note: string | null }>()
const emit = defineEmits<{ note: [text: string | null]; credits: [credits: number] }>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()

/** Until when the session of the section allows what, where that is not as in the rest of the term. */
const dates = computed(() => {
  const main = props.line.sections?.find((one) => one.parent === null)
  const session = standing.term?.sessions.find((one) => one.code === main?.session)
  return session?.dates ? sessionText(session.name, session.dates, college.zone) : undefined
})
/** The credits to choose from, where there are several. */
const choices = computed(() => {
  const [least, most] = props.line.sections?.find((one) => one.parent === null)?.creditsRange ?? []
  if (least === undefined || most === undefined) return []
  return Array.from({ length: Math.floor(most - least) + 1 }, (_, i) => least + i)
})
const mayChoose = computed(
  () => student.own && (props.line.state === 'ready' || props.line.state === 'registered')
)
</script>

<template>
  <strong>{{ line.course }}</strong> <span class="quiet">{{ line.title }}</span>
  <span v-for="s in line.sections ?? []" :key="s.code" class="hours"
    ><strong>{{ s.parent ? `${KIND_WORDS[s.kind]} ` : '' }}{{ s.number }}</strong> {{ sectionHours(s) }} ·
    {{ s.code }}</span
  >
  <label v-if="choices.length && mayChoose" class="credits small"
    >credits
    <v-select
      :model-value="line.credits"
      :items="choices"
      :aria-label="`Credits of ${line.course}`"
      @update:model-value="emit('credits', $event as number)"
    />
  </label>
  <span v-else-if="choices.length" class="hours quiet small">{{ line.credits }} credits</span>
  <span v-if="dates" class="hours quiet small">{{ dates }}</span>
  <span v-if="line.givesBack.length" class="hours quiet">{{
    student.say(
      `instead of ${line.givesBack.map(sectionName).join(' + ')}, which you hold until this one is yours`
    )
  }}</span>
  <span v-if="line.givesUp" class="hours quiet">{{
    student.say(`for it you give up ${line.givesUp}, which you hold until this one is yours`)
  }}</span>
  <NoteLine
    :text="note"
    :about="line.course"
    :most="300"
    :own="student.own"
    @change="(text) => emit('note', text)"
  />
</template>

<style scoped>
.hours {
  display: block;
}
.credits {
  display: flex;
  align-items: center;
  gap: 8px;
}
.credits .v-select {
  flex: 0 0 76px;
}
</style>
