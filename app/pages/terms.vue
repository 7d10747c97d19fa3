<script setup lang="ts">
import { phaseOf } from '#core/catalog'
import type { GradesDue } from '#shared/record/responses'
import { dayMonth, deadlineText } from '#shared/when'
import { count } from '#shared/words'

useHead({ title: 'Terms · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
const clock = useClock()
const demo = useRuntimeConfig().public.demo
/** Terms that are over and wait for grades; the demo's registrar posts them. */
const due = shallowRef<GradesDue[]>([])
const said = ref<string>()
const posting = ref<string>()
async function readDue() {
  if (demo) due.value = await api<GradesDue[]>('/api/terms/due')
}
async function post({ term }: GradesDue) {
  posting.value = term
  try {
    const { posted, students } = await api<{ posted: number; students: number }>(
      `/api/terms/${term}/grades`,
      { method: 'POST', body: {} }
    )
    said.value = `${count(posted, 'grade')} of ${college.termName(term)} posted for ${count(students, 'student')}.`
    await readDue()
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    said.value = error.message
  } finally {
    posting.value = undefined
  }
}
onMounted(() => staff.load())
watch(() => Math.floor(clock.minute / 86_400_000), readDue, { immediate: true })

const terms = computed(() =>
  (college.shelf?.terms ?? []).filter(
    (t) => phaseOf(t, college.today) === 'current' || (t.published && phaseOf(t, college.today) === 'future')
  )
)
const running = (code: string) => college.shelf?.running.get(code)?.size ?? 0
const POLICIES = {
  none: 'no sign-off',
  term: 'one sign-off opens the term',
  strict: 'only courses that were signed off',
  anew: 'only as it was signed off; a change asks for a new one'
}
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>Terms</h1>
          <span class="quiet">published terms; the campus clock stands at the foot of the page</span>
        </div>
        <p v-if="said" role="status" class="said">{{ said }}</p>
        <section v-for="one in due" :key="one.term" class="card term due">
          <h2>{{ college.termName(one.term) }} <span class="quiet small">over, grades due</span></h2>
          <p>
            {{ count(one.grades, 'grade') }} of {{ count(one.students, 'student') }} are not posted yet.
            <v-btn
              variant="flat"
              color="primary"
              size="small"
              :disabled="posting !== undefined"
              @click="post(one)"
              >{{ posting === one.term ? 'Posting …' : 'Post them as the demo gives them' }}</v-btn
            >
          </p>
        </section>
        <p v-if="!terms.length && !due.length" class="card term quiet">
          No term is under way, and none is published ahead.
        </p>
        <section v-for="term in terms" :key="term.code" class="card term">
          <h2>
            {{ term.name }}
            <span class="quiet small">{{
              phaseOf(term, college.today) === 'current' ? 'in progress' : 'to come'
            }}</span>
          </h2>
          <dl>
            <dt>Dates</dt>
            <dd>{{ dayMonth(term.start) }} to {{ dayMonth(term.end) }} {{ term.year }}</dd>
            <dt>Sessions</dt>
            <dd>
              {{
                term.sessions.map((s) => `${s.name} ${dayMonth(s.start)} to ${dayMonth(s.end)}`).join(' · ')
              }}
            </dd>
            <dt>No classes</dt>
            <dd>{{ term.holidays.map((h) => `${dayMonth(h.date)} ${h.name}`).join(', ') }}</dd>
            <dt>Courses with sections</dt>
            <dd>{{ running(term.code) }}</dd>
            <dt>Adding until</dt>
            <dd>{{ deadlineText(term.addEndsAt, college.zone) }}</dd>
            <dt>Most credits</dt>
            <dd>{{ term.loadMost }}</dd>
            <dt>Sign-off</dt>
            <dd>{{ POLICIES[term.signOffPolicy] }}</dd>
          </dl>
        </section>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.term {
  padding: 12px 15px;
  margin-bottom: 12px;
}
dl {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  gap: 4px 14px;
  margin: 8px 0 0;
}
dt {
  color: var(--quiet);
}
</style>
