<script setup lang="ts">
import { phaseOf } from '#core/catalog'
import { dayMonth, instantText } from '#wire/when'

useHead({ title: 'Terms · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
onMounted(() => staff.load())

const terms = computed(() =>
  (college.shelf?.terms ?? []).filter(
    (t) => phaseOf(t, college.today) === 'current' || (t.published && phaseOf(t, college.today) === 'future')
  )
)
const running = (code: string) => college.shelf?.running.get(code)?.size ?? 0
const POLICIES = {
  none: 'no sign-off',
  term: 'one sign-off opens the term',
  strict: 'only courses that were signed off'
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
            <dt>Adding ends</dt>
            <dd>{{ instantText(term.addEndsAt, college.zone) }}</dd>
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
