<script setup lang="ts">
import { phaseOf } from '#core/catalog'
import { becauseText, count } from '#wire/words'
import { keyOf } from '~/stores/filling'

/** Filling the rest: what is wished, how the search goes, what is proposed and why, taken in whole or in part. */
const emit = defineEmits<{ close: [] }>()
const filling = useFilling()
const student = useStudent()
const college = useCollege()
const panel = useCoursePanel()
const summers = ref(false)
const subjects = ref('')
const until = ref('')
const heading = ref<HTMLElement>()
onMounted(() => heading.value?.focus())

const terms = computed(() =>
  (college.shelf?.terms ?? []).filter((t) => phaseOf(t, college.today) === 'future')
)
const byTerm = computed(() =>
  terms.value
    .map((term) => ({
      term,
      courses: (filling.proposal?.courses ?? []).filter((one) => one.planned.term === term.code)
    }))
    .filter(({ courses }) => courses.length)
)
const all = computed(() => filling.proposal?.courses.length ?? 0)

function start() {
  const words = subjects.value.toUpperCase().split(/[\s,]+/)
  filling.start({
    summers: summers.value,
    subjects: new Set(words.filter(Boolean)),
    ...(until.value ? { until: terms.value.find((t) => t.code === until.value)!.code } : {})
  })
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
      <button class="textlink" @click="close">Leave it</button>
    </div>
    <form v-if="!filling.search && !filling.proposal" @submit.prevent="start">
      <p class="quiet">
        Courses for everything that is still needed, each in a term where it may stand. What is on the route
        stays where it is; nothing changes until you take it.
      </p>
      <div class="wishes">
        <label><input v-model="summers" type="checkbox" /> use summers</label>
        <label>
          rather these subjects
          <input v-model="subjects" class="field" type="text" placeholder="STAT, HYDR" maxlength="80" />
        </label>
        <label>
          finish by
          <select v-model="until" class="field">
            <option value="">any term</option>
            <option v-for="term in terms" :key="term.code" :value="term.code">{{ term.name }}</option>
          </select>
        </label>
        <v-btn type="submit" variant="flat" color="primary">Look for a way</v-btn>
      </div>
    </form>
    <div v-if="filling.search" class="wishes">
      <p role="status">
        Looking<template v-if="filling.search.first"
          >; a way that finishes in {{ filling.search.first }} is found, looking for a better one</template
        >. {{ filling.search.steps }} steps so far.
      </p>
      <v-btn size="small" @click="filling.stop()">Stop</v-btn>
    </div>
    <p v-if="filling.ended" role="status" class="ended">{{ filling.ended }}</p>
    <template v-if="filling.proposal">
      <div class="wishes">
        <v-btn variant="flat" color="primary" :disabled="!filling.kept.size" @click="accept">
          {{
            filling.kept.size === all
              ? `Take all ${count(all, 'course')}`
              : `Take ${filling.kept.size} of ${all}`
          }}
        </v-btn>
        <v-btn @click="close">Take none</v-btn>
        <span class="quiet small">Uncheck what you do not want; the board above shows what is left.</span>
      </div>
      <div class="terms">
        <fieldset v-for="{ term, courses } in byTerm" :key="term.code">
          <legend>
            <span class="display">{{ term.name }}</span>
          </legend>
          <div v-for="one in courses" :key="keyOf(one.planned)" class="one">
            <input
              :id="`keep ${keyOf(one.planned)}`"
              type="checkbox"
              :checked="filling.kept.has(keyOf(one.planned))"
              @change="filling.toggle(keyOf(one.planned))"
            />
            <label :for="`keep ${keyOf(one.planned)}`"
              ><strong>{{ one.planned.course }}</strong> · {{ one.planned.credits }} cr</label
            >
            <button
              class="textlink small"
              :aria-label="`Open ${one.planned.course}`"
              @click="panel.open(one.planned.course)"
            >
              open
            </button>
            <p class="quiet small">{{ becauseText(one) }}</p>
          </div>
        </fieldset>
      </div>
    </template>
    <p v-if="!student.own" class="quiet small">Only the student can take a proposal onto the route.</p>
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
.one p {
  grid-column: 2 / -1;
  margin: 0;
}
</style>
