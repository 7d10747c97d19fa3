<script setup lang="ts">
import type { Carry } from '#shared/route/responses'

/** What the student can carry in a term, set once and changed by term; terms spent elsewhere. */
const emit = defineEmits<{ close: [] }>()
const student = useStudent()
const routeChanges = useRouteChanges()
const college = useCollege()
const TERMS = 10
const heading = ref<HTMLElement>()
onMounted(() => heading.value?.focus())
const terms = computed(() => college.termsAhead.slice(0, TERMS))
const given = student.view!.carry
const form = reactive({
  credits: given.credits ?? ('' as number | ''),
  least: given.least ?? ('' as number | ''),
  hours: given.hours ?? ('' as number | ''),
  outside: given.outside ?? ('' as number | ''),
  target: given.target ?? ''
})
const rows = reactive(
  Object.fromEntries(
    terms.value.map((term) => {
      const own = given.terms.find((one) => one.term === term.code)
      return [
        term.code,
        {
          credits: own?.credits ?? ('' as number | ''),
          hours: own?.hours ?? ('' as number | ''),
          away: own?.away ?? ''
        }
      ]
    })
  )
)
const busy = ref(false)
/** Hours of a week that are left when sleep, meals and the rest have had theirs (common practice). */
const WAKING = 112
const number = (value: number | '') => (value === '' ? null : value)
const spare = computed(() => {
  const { hours, outside } = form
  return hours !== '' && outside !== '' && hours + outside > WAKING ? hours + outside : undefined
})

async function save() {
  busy.value = true
  const beyond = given.terms.filter((one) => !terms.value.some((term) => term.code === one.term))
  const carry: Carry = {
    credits: number(form.credits),
    least: number(form.least),
    hours: number(form.hours),
    outside: number(form.outside),
    target: (form.target || null) as Carry['target'],
    terms: [
      ...beyond,
      ...terms.value.map((term) => {
        const { credits, hours, away } = rows[term.code]!
        return {
          term: term.code,
          credits: number(credits),
          hours: number(hours),
          away: (away || null) as Carry['terms'][number]['away']
        }
      })
    ]
  }
  const done = await routeChanges.changeCarry(carry)
  busy.value = false
  if (done) emit('close')
}
const PLACES = [
  { value: '', title: 'here' },
  { value: 'exchange', title: 'on exchange' },
  { value: 'leave', title: 'on leave' }
]
</script>

<template>
  <form class="card carry" aria-labelledby="carry-title" @submit.prevent="save" @keydown.esc="emit('close')">
    <h2 id="carry-title" ref="heading" tabindex="-1">My limits</h2>
    <div class="usual">
      <label
        >Credits a term at most
        <v-text-field v-model.number="form.credits" type="number" min="1" max="60" step="0.5"
      /></label>
      <label
        >and at least <v-text-field v-model.number="form.least" type="number" min="1" max="60" step="0.5"
      /></label>
      <label
        >Hours of study a week <v-text-field v-model.number="form.hours" type="number" min="0" max="168"
      /></label>
      <label
        >Hours of work and family <v-text-field v-model.number="form.outside" type="number" min="0" max="168"
      /></label>
      <label>
        Finish by
        <v-select
          v-model="form.target"
          :items="[{ code: '', name: 'no wish' }, ...college.termsAhead]"
          item-value="code"
          item-title="name"
        />
      </label>
    </div>
    <p v-if="spare" class="stops" role="status">
      Study, work and family come to {{ spare }} hours; a week has about {{ WAKING }} to spend.
    </p>
    <h3>Where a term differs</h3>
    <div class="terms">
      <div v-for="term in terms" :key="term.code" class="term" role="group" :aria-label="term.name">
        <span class="name">{{ term.name }}</span>
        <label>
          credits
          <v-text-field
            v-model.number="rows[term.code]!.credits"
            type="number"
            min="1"
            max="60"
            step="0.5"
            :placeholder="String(form.credits || term.loadMost)"
          />
        </label>
        <label>
          hours
          <v-text-field
            v-model.number="rows[term.code]!.hours"
            type="number"
            min="0"
            max="168"
            :placeholder="String(form.hours)"
          />
        </label>
        <v-select
          v-model="rows[term.code]!.away"
          :items="PLACES"
          :aria-label="`Where I am in ${term.name}`"
        />
      </div>
    </div>
    <div class="usual">
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy">Keep</v-btn>
      <v-text-btn type="button" @click="emit('close')">Close</v-text-btn>
    </div>
  </form>
</template>

<style scoped>
.carry {
  padding: 12px 16px;
  margin-bottom: 10px;
}
.usual {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  margin: 6px 0;
}
label {
  display: flex;
  align-items: center;
  gap: 6px;
}
h3 {
  margin: 8px 0 2px;
  font-size: 14px;
}
.terms {
  margin: 0 0 8px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(430px, 1fr));
  gap: 4px 28px;
}
.term {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  gap: 10px;
  align-items: center;
}
@media (max-width: 720px) {
  .terms {
    grid-template-columns: minmax(0, 1fr);
  }
  .term {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
