<script setup lang="ts">
import { deadlineText, instantText, timeLeft } from '#shared/when'

useHead({ title: 'Openings · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const clock = useClock()
const places = useStaffPlaces()
const offices = useOffices()
const session = useWho()
/** The registrar moves them; everybody else reads them. */
const moves = computed(() => session.who?.role === 'registrar')
onMounted(() => {
  void staff.load()
  if (moves.value) void offices.loadOpenings()
})

const terms = computed(() =>
  college.openTerms
    .map((term) => ({ term, openings: staff.openings.filter((o) => o.term === term.code) }))
    .filter((t) => t.openings.length)
)
/** Students of the desk who may register from that instant, and who of them is not ready. */
const mine = (opens: number) => {
  const rows = (staff.desk?.rows ?? []).filter((r) => r.opens === opens)
  return { all: rows.length, unready: rows.filter((r) => r.isBarred || r.holds > 0) }
}
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? (moves ? offices.failure : undefined)"
      :ready="staff.ready && (!moves || Boolean(offices.openings))"
      @retry="(staff.load(), moves && offices.loadOpenings())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Openings</h1>
          <span class="quiet">who may register when; all openings are public</span>
        </div>
        <section v-for="{ term, openings } in terms" :key="term.code" class="card term">
          <h2>{{ term.name }}</h2>
          <OpeningSteps
            v-if="moves"
            :openings="(offices.openings ?? []).filter((one) => one.term === term.code)"
          />
          <OpeningsTable
            v-if="moves"
            :openings="(offices.openings ?? []).filter((one) => one.term === term.code)"
          />
          <ul v-else>
            <li v-for="o in openings" :key="`${o.title} ${o.opens}`">
              <strong>{{ instantText(o.opens, college.zone) }}</strong>
              <span>{{ o.title }}</span>
              <span class="quiet">{{
                o.opens > clock.minute ? `in ${timeLeft(o.opens - clock.minute)}` : 'open'
              }}</span>
              <span v-if="staff.desk && term.code === staff.desk.term" class="mine">
                {{ mine(o.opens).all }} of yours<template v-if="mine(o.opens).unready.length"
                  >, <strong>{{ mine(o.opens).unready.length }} not ready</strong>:
                  {{
                    mine(o.opens)
                      .unready.slice(0, 4)
                      .map((r) => r.name)
                      .join(', ')
                  }}{{ mine(o.opens).unready.length > 4 ? ' …' : '' }}</template
                >
              </span>
            </li>
          </ul>
          <p class="quiet small">
            Adding until {{ deadlineText(term.addEndsAt, college.zone) }} · dropping until
            {{ deadlineText(term.dropEndsAt, college.zone) }}
          </p>
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
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 230px 260px 110px minmax(0, 1fr);
  gap: 2px 14px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
@media (max-width: 900px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
