<script setup lang="ts">
import type { TermCode } from '#core/ids'
import type { TermRow } from '#shared/offices/terms'
import { instantText } from '#shared/when'
import { count } from '#shared/words'

/** Openings of a term: those that are there, those of an earlier term as many weeks before, and new ones. */
const props = defineProps<{ row: TermRow }>()
const terms = useTerms()
const offices = useOffices()
const college = useCollege()
const clock = useClock()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()
onMounted(() => offices.loadOpenings())

const own = computed(() => (offices.openings ?? []).filter((one) => one.term === props.row.code))
const earlier = computed(() =>
  (terms.rows ?? [])
    .filter((one) => one.start < props.row.start && one.openings)
    .toReversed()
    .sort((a, b) => Number(b.season === props.row.season) - Number(a.season === props.row.season))
)
const from = ref<TermCode>()
watch(earlier, (list) => (from.value ??= list[0]?.code), { immediate: true })
const copy = () =>
  attempt(async () => {
    const { made, passed } = await terms.copyOpenings(props.row.code, from.value!)
    await offices.loadOpenings()
    notice.say(
      `${count(made, 'opening')} made.${passed ? ` ${passed} left out: the time for them has passed.` : ''}`
    )
  })
const drop = (id: number, title: string) =>
  attempt(async () => {
    const { told } = await terms.dropOpening(id)
    await offices.loadOpenings()
    notice.say(`${title}: taken away.${told ? ` ${count(told, 'student')} told.` : ''}`)
  })
</script>

<template>
  <section aria-labelledby="openings-title">
    <h2 id="openings-title">Openings</h2>
    <ul v-if="own.length">
      <li v-for="one in own" :key="one.id">
        <span
          ><strong>{{ instantText(one.opens, college.zone) }}</strong> {{ one.title }}
          <span class="quiet">{{ count(one.students, 'student') }}</span></span
        >
        <v-text-btn
          v-if="one.opens > clock.minute"
          :disabled="busy"
          :aria-label="`Take the opening ${one.title} away`"
          @click="drop(one.id, one.title)"
          >Take away</v-text-btn
        >
      </li>
    </ul>
    <p v-else-if="offices.openings" class="quiet">None: nobody may register.</p>
    <form v-if="!row.openings && earlier.length" @submit.prevent="copy">
      <v-select
        v-model="from"
        label="for the groups of"
        :items="
          earlier.map((one) => ({ value: one.code, title: `${one.name}, ${count(one.openings, 'opening')}` }))
        "
      />
      <v-btn type="submit" :disabled="busy || !from">Open it as many weeks before</v-btn>
    </form>
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <NewOpening :row="row" />
  </section>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
}
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 4px 10px;
  padding: 4px 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
form {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin-bottom: 8px;
}
form .v-input {
  width: 100%;
}
</style>
