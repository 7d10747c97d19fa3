<script setup lang="ts">
import { comparedTerm } from '#shared/advising/signOff'

/** The term side by side: what was signed off, what is planned, which section is picked, what is registered. */
const standing = useStanding()
const rows = computed(() =>
  comparedTerm({
    signOff: standing.signOff,
    planned: standing.planned.map((one) => one.course),
    picked: standing.pickedSections,
    held: standing.heldSections
  })
)
const SIGNED = { yes: 'yes', inPlace: 'in place of one', no: 'no' }
</script>

<template>
  <v-table v-if="rows.length" class="compared" density="compact">
    <thead>
      <tr>
        <th scope="col">Course</th>
        <th v-if="standing.signOff" scope="col">Signed off</th>
        <th scope="col">Planned</th>
        <th scope="col">Picked</th>
        <th scope="col">Registered</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.course">
        <th scope="row">{{ row.course }}</th>
        <td v-if="standing.signOff" :class="{ differs: row.signed === 'no' }">{{ SIGNED[row.signed] }}</td>
        <td :class="{ differs: !row.planned && row.signed !== 'no' }">{{ row.planned ? 'yes' : 'no' }}</td>
        <td>{{ row.picked || '–' }}</td>
        <td>{{ row.held || '–' }}</td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.compared {
  --v-table-row-height: 26px;
  --v-table-header-height: 28px;
  margin: 4px 0;
}
@media (max-width: 720px) {
  .compared :deep(th),
  .compared :deep(td) {
    padding-inline: 4px;
  }
}
.differs {
  color: var(--ember);
  font-weight: 700;
}
</style>
