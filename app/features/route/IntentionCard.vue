<script setup lang="ts">
import { BECAME_WORDS, sinceHandedIn, takesIntentions, whatBecame } from '#shared/route/intentions'
import { deadlineText, shortDay } from '#shared/when'
import { count } from '#shared/words'

/** What is meant for a term, handed in before there are sections; later, what became of each course. */
const student = useStudent()
const college = useCollege()
const clock = useClock()
const routeChanges = useRouteChanges()
const { busy, once } = useOnce()

const view = computed(() => student.view!)
/** Terms for which something is handed in now, or was. */
const terms = computed(() => {
  const all = (college.catalogContext?.terms ?? []).filter((term) => term.end >= college.today)
  const next = all.find((term) => takesIntentions(term, clock.minute))
  return all.flatMap((term) => {
    const handedIn = view.value.intentions.find((one) => one.term === term.code)
    const takes = term === next
    if (!handedIn && !takes) return []
    const planned = view.value.route.courses.filter((one) => one.term === term.code).map((one) => one.course)
    const since = handedIn && sinceHandedIn(handedIn, planned)
    const running = college.catalogContext!.running.get(term.code) ?? new Set<string>()
    return [
      {
        term,
        handedIn,
        takes,
        planned,
        differs: since
          ? [...since.added.map((one) => `${one} added`), ...since.removed.map((one) => `${one} taken out`)]
          : [],
        became: (handedIn?.courses ?? []).map((course) => ({
          course,
          what: BECAME_WORDS[whatBecame(course, term, running, view.value)]
        }))
      }
    ]
  })
})
const place = (term: { intentionsDueAt: number | null }) => deadlineText(term.intentionsDueAt!, college.zone)
</script>

<template>
  <section v-for="one in terms" :key="one.term.code" class="card" :aria-labelledby="`meant-${one.term.code}`">
    <h2 :id="`meant-${one.term.code}`">
      Meant for {{ one.term.name }}
      <span class="quiet">{{
        one.handedIn ? `handed in ${shortDay(one.handedIn.at, college.zone)}` : 'before there are sections'
      }}</span>
    </h2>
    <p v-if="one.takes && !one.handedIn">
      {{ student.say('Hand in what you mean to take') }}, until {{ place(one.term) }}: seats are planned from
      it. It holds no seat and binds nobody.
    </p>
    <ul v-if="one.became.length">
      <li v-for="row in one.became" :key="row.course">
        <strong>{{ row.course }}</strong> <span class="quiet">{{ student.say(row.what) }}</span>
      </li>
    </ul>
    <p v-if="one.takes && one.handedIn && one.differs.length" class="differs">
      <strong>The route has changed since:</strong> {{ one.differs.join(', ') }}.
    </p>
    <template v-if="one.takes && student.own">
      <v-btn
        v-if="one.planned.length && (!one.handedIn || one.differs.length)"
        :disabled="busy"
        @click="once(() => routeChanges.handIn(one.term.code, one.planned))"
        >{{ one.handedIn ? 'Hand in again' : `Hand in ${count(one.planned.length, 'course')}` }}</v-btn
      >
      <span v-else-if="!one.planned.length" class="quiet"
        >Nothing is planned for {{ one.term.name }} yet.</span
      >
      <v-text-btn
        v-if="one.handedIn"
        :disabled="busy"
        @click="once(() => routeChanges.takeIntentionsBack(one.term.code))"
        >take it back</v-text-btn
      >
    </template>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 13px;
}
p {
  margin: 0 0 6px;
}
h2 .quiet {
  font-size: 13px;
  font-weight: 400;
  margin-left: 6px;
}
ul {
  margin: 4px 0;
  padding-left: 18px;
}
.differs strong {
  color: var(--ember);
}
</style>
