<script setup lang="ts">
import type { Course } from '#core/catalog'
import { candidatesFor } from '#core/degree'
import type { CourseCode, TermCode } from '#core/ids'
import type { FillChoice, Proposal } from '#shared/route/filling'
import { candidateQuestion } from '#shared/degree/candidateQuestion'
import { becauseText } from '#shared/route/fillingTexts'
import { count } from '#shared/words'
import { keyOf } from './filling'

/** Filling the rest: what is wished, how the search goes, what is proposed and why, taken in whole or in part. */
const emit = defineEmits<{ close: [] }>()
const filling = useFilling()
const student = useStudent()
const college = useCollege()
const panel = useCoursePanel()
const choice = reactive({
  summers: false,
  starred: false,
  subjects: '',
  how: 'any' as FillChoice['how'],
  campus: '',
  until: '' as TermCode | ''
})
const HOW: Record<FillChoice['how'], string> = {
  any: 'any way',
  online: 'online',
  evening: 'in the evening',
  either: 'online or in the evening'
}
const stars = computed(() => student.view!.marks.filter((one) => one.starred).length)
/** Programs with a sequence to start from. */
const sequences = computed(() =>
  student.view!.programs.flatMap(({ spec }, index) => (spec.suggested?.length ? [{ spec, index }] : []))
)
const heading = ref<HTMLElement>()
onMounted(() => heading.value?.focus())

const terms = computed(() => college.termsAhead)
const byTerm = computed(() =>
  terms.value
    .map((term) => ({
      term,
      courses: (filling.proposal?.courses ?? []).filter((one) => one.planned.term === term.code),
      open: (filling.proposal?.open ?? []).filter((one) => one.term === term.code)
    }))
    .filter(({ courses, open }) => courses.length || open.length)
)
const all = computed(() => filling.proposal?.courses.length ?? 0)
const some = computed(() => all.value + (filling.proposal?.open.length ?? 0) > 0)

function start() {
  const { subjects, campus, until, ...rest } = choice
  filling.start({
    ...rest,
    subjects: subjects
      .toUpperCase()
      .split(/[\s,]+/)
      .filter(Boolean),
    campus: campus || null,
    until: until || null
  })
}
/** Courses that may stand in the term for a need that is left open there. */
function choicesFor({ result, term }: Proposal['open'][number]): Course[] {
  const at = terms.value.find((one) => one.code === term)
  const reading = filling.preview ?? student.reading
  if (!at || !reading || !college.catalogContext) return []
  return candidatesFor(result, candidateQuestion(reading, college.catalogContext, at))
    .list.filter((one) => one.runs && !one.missing)
    .map((one) => one.course)
}
function choose(open: Proposal['open'][number], code: string) {
  const course = college.catalogContext?.catalog.maybeCourse(code as CourseCode)
  if (course) filling.choose(open, course)
}
function close() {
  filling.leave()
  emit('close')
}
async function accept() {
  await filling.accept()
  if (!filling.proposal) emit('close')
}
</script>

<template>
  <section class="card fill" aria-labelledby="fill-title" @keydown.esc="close">
    <div class="head">
      <h2 id="fill-title" ref="heading" tabindex="-1">Fill the rest</h2>
      <v-text-btn @click="close">Close</v-text-btn>
    </div>
    <form v-if="!filling.search && !filling.proposal" @submit.prevent="start">
      <p class="quiet">
        Courses for everything that is still needed, each in a term where it may stand. What is on the route
        stays where it is; nothing changes until you take it.
      </p>
      <div class="wishes">
        <label><v-checkbox-btn v-model="choice.summers" /> use summers</label>
        <label v-if="stars"
          ><v-checkbox-btn v-model="choice.starred" /> rather my {{ count(stars, 'starred course') }}</label
        >
        <label>
          rather these subjects
          <v-text-field v-model="choice.subjects" type="text" placeholder="STAT, HYDR" maxlength="80" />
        </label>
        <label>
          rather held
          <v-select
            v-model="choice.how"
            :items="Object.keys(HOW)"
            :item-title="(how) => HOW[how as keyof typeof HOW]"
          />
        </label>
        <label>
          at
          <v-select
            v-model="choice.campus"
            :items="[{ code: '', name: 'any campus' }, ...(college.view?.campuses ?? [])]"
            item-value="code"
            item-title="name"
          />
        </label>
        <label>
          finish by
          <v-select
            v-model="choice.until"
            :items="[{ code: '', name: 'any term' }, ...terms]"
            item-value="code"
            item-title="name"
          />
        </label>
        <v-btn type="submit" variant="flat" color="primary">Look for a way</v-btn>
        <template v-if="sequences.length">
          <span class="quiet">or</span>
          <v-btn v-for="{ spec, index } in sequences" :key="spec.code" @click="filling.suggest(index)">
            Start from the sequence of {{ spec.shortTitle }}
          </v-btn>
        </template>
      </div>
    </form>
    <div v-if="filling.search" class="wishes">
      <p role="status">
        Looking<template v-if="filling.search.found"
          >; everything can be done by {{ filling.search.found }}, choosing the courses that suit
          best</template
        >. {{ count(filling.search.models, 'model') }} solved so far.
      </p>
      <v-btn size="small" @click="filling.stop()">Stop</v-btn>
    </div>
    <div v-if="filling.ended" class="ended">
      <p role="status">{{ filling.ended }}</p>
      <HowAnswered v-if="filling.proposal" answer="finish" />
    </div>
    <template v-if="filling.proposal && some">
      <div class="wishes">
        <v-btn variant="flat" color="primary" :disabled="!filling.kept.size" @click="accept">
          {{ student.isSuggesting ? 'Suggest' : 'Take' }}
          {{ filling.kept.size === all ? `all ${count(all, 'course')}` : `${filling.kept.size} of ${all}` }}
        </v-btn>
        <v-btn @click="close">Discard</v-btn>
        <span class="quiet small">Uncheck what you do not want; the board above shows what is left.</span>
      </div>
      <div class="terms">
        <fieldset v-for="{ term, courses, open } in byTerm" :key="term.code">
          <legend>
            <span class="display">{{ term.name }}</span>
          </legend>
          <div v-for="one in courses" :key="keyOf(one.planned)" class="one">
            <v-checkbox-btn
              :id="`keep ${keyOf(one.planned)}`"
              :model-value="filling.kept.has(keyOf(one.planned))"
              @update:model-value="filling.toggle(keyOf(one.planned))"
            />
            <label :for="`keep ${keyOf(one.planned)}`"
              ><strong>{{ one.planned.course }}</strong> · {{ one.planned.credits }} cr</label
            >
            <v-text-btn
              class="small"
              :aria-label="`Open ${one.planned.course}`"
              @click="panel.open(one.planned.course)"
            >
              open
            </v-text-btn>
            <p class="quiet small">{{ becauseText(one) }}</p>
          </div>
          <label v-for="(one, n) in open" :key="n" class="choose">
            <span class="small">{{ one.result.need.title }}</span>
            <v-select
              :aria-label="`A course for ${one.result.need.title} in ${term.name}`"
              model-value=""
              :items="[
                { value: '', title: 'choose a course' },
                ...choicesFor(one).map(({ code, title }) => ({ value: code, title: `${code} ${title}` }))
              ]"
              @update:model-value="choose(one, $event as string)"
            />
          </label>
        </fieldset>
      </div>
    </template>
  </section>
</template>

<style scoped>
.fill {
  padding: 12px 16px;
  margin: 10px 0;
}
.head,
.wishes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
}
.head {
  justify-content: space-between;
}
.wishes label {
  display: flex;
  align-items: center;
  gap: 6px;
}
.wishes p {
  margin: 0;
}
.ended {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  background: var(--dusk-tint);
  border-radius: 8px;
  padding: 6px 12px;
  margin: 6px 0 10px;
}
.terms {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 12px;
  margin-top: 10px;
}
fieldset {
  border: 1px solid var(--rule);
  border-radius: 8px;
  padding: 4px 12px 8px;
  min-width: 0;
}
.one {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 0 8px;
  align-items: center;
  padding: 3px 0;
}
.choose {
  display: grid;
  gap: 2px;
  padding: 4px 0;
}
.one p {
  grid-column: 2 / -1;
  margin: 0;
}
.ended p {
  flex: 1;
  min-width: 16em;
  margin: 0;
}
</style>
