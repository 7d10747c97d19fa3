<script setup lang="ts">
import { appointmentTime } from '#shared/appointments/texts'

useHead({ title: 'Hours · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
onMounted(() => staff.load())
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready && Boolean(staff.hours)" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>Hours</h1>
          <span class="push quiet">what you offer, your students can book</span>
        </div>
        <div class="columns">
          <OfferedHours :hours="staff.hours!" />
          <div class="side">
            <section class="card" aria-labelledby="comes-title">
              <h2 id="comes-title">Who comes</h2>
              <ul v-if="staff.hours!.appointments.length">
                <li v-for="one in staff.hours!.appointments" :key="one.id">
                  <strong>{{ appointmentTime(one, college.zone) }}</strong>
                  <NuxtLink :to="`/students/${one.student.id}/route#talk`" class="textlink">{{
                    one.student.name
                  }}</NuxtLink>
                  <span class="quiet"
                    >{{ one.place }}{{ one.state === 'invited' ? ' · invited, not answered' : '' }}</span
                  >
                  <span v-if="one.about" class="small">{{ one.about }}</span>
                </li>
              </ul>
              <p v-else class="quiet">Nobody has booked a time.</p>
            </section>
            <HoursAddress :address-key="staff.hours!.calendarKey" />
          </div>
        </div>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 12px;
  align-items: start;
}
.side {
  display: grid;
  gap: 12px;
}
.card {
  padding: 12px 16px;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
li > strong {
  flex: 1 1 100%;
}
@media (max-width: 980px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
