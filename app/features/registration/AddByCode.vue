<script setup lang="ts">
import type { Option } from '#core/week'
import { sectionsOf } from '#core/week'
import { readTyped, type TypedTerm } from '#shared/registration/typed'
import { sectionHours, sectionName } from '#shared/week/texts'
import { count } from '#shared/words'

/** Sections typed or pasted by their codes or numbers; what fits goes onto the run sheet, and its course onto the route. */
const emit = defineEmits<{ close: [] }>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const offers = useOffers()
const changes = useChanges()
const { put } = usePlacing()

const typed = ref('')
const terms = computed(() =>
  (college.catalogContext?.terms ?? []).flatMap((term): (TypedTerm & { code: string })[] => {
    const sections = offers.byTerm.get(term.code)?.sections
    return sections ? [{ code: term.code, name: term.name, sections }] : []
  })
)
const read = computed(() => {
  const here = terms.value.find((one) => one.code === standing.term?.code)
  const others = terms.value.filter((one) => one !== here)
  return here ? readTyped(typed.value, here, others) : { options: [], faults: [] }
})
const names = (option: Option) => sectionsOf(option).map(sectionName).join(' + ')
const hours = (option: Option) => sectionsOf(option).map(sectionHours).join(', ')
const adding = ref(false)

async function add() {
  const term = standing.term!.code
  const chosen = read.value.options
  if (!chosen.length || adding.value) return
  adding.value = true
  try {
    const there = new Set([...standing.planned.map((one) => one.course), ...standing.heldCourses])
    const missing = chosen
      .filter((option) => !there.has(option.course))
      .flatMap((option) => college.catalogContext!.catalog.maybeCourse(option.course) ?? [])
    if (missing.length && !(await put(missing, term))) return
    const picked = await changes.make({
      kind: 'picks',
      term,
      week: standing.draft?.id ?? null,
      picks: chosen.map((option) => ({ course: option.course, sections: [...sectionsOf(option)] })),
      held: [...standing.heldCourses]
    })
    // What could not be added stays in the field.
    if (picked) typed.value = read.value.faults.map((fault) => fault.text).join(' ')
    if (picked && !typed.value) emit('close')
  } finally {
    adding.value = false
  }
}
</script>

<template>
  <form class="card add" aria-label="Add by section code" @submit.prevent="add" @keydown.esc="emit('close')">
    <v-textarea
      v-model="typed"
      label="Section codes or numbers"
      placeholder="L9SQG, ENVI 310-02"
      rows="1"
      auto-grow
      autofocus
      @keydown.enter.exact.prevent="add"
    />
    <div class="keys">
      <v-btn type="submit" variant="flat" color="primary" :disabled="!read.options.length || adding">{{
        read.options.length ? `Add ${count(read.options.length, 'section')}` : 'Add'
      }}</v-btn>
      <v-btn @click="emit('close')">Close</v-btn>
    </div>
    <ul class="read" aria-live="polite">
      <li v-for="option in read.options" :key="option.key">
        <strong>{{ names(option) }}</strong> <span class="quiet">{{ hours(option) }}</span>
      </li>
      <li v-for="fault in read.faults" :key="fault.text" class="stops">{{ student.say(fault.why) }}</li>
    </ul>
  </form>
</template>

<style scoped>
.add {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px 12px;
  align-items: start;
  margin-bottom: 12px;
  padding: 12px 15px;
}
.keys {
  display: flex;
  gap: 8px;
}
.read {
  grid-column: 1 / -1;
  margin: 0;
  padding: 0;
  list-style: none;
}
@media (max-width: 720px) {
  .add {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
