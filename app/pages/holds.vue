<script setup lang="ts">
import { count } from '#shared/words'

useHead({ title: 'Holds · Ridgeway' })
const staff = useStaff()
const offices = useOffices()
const places = useStaffPlaces()
/** An office sees its own, and nothing else of a student. */
const office = computed(() => offices.holds?.office ?? null)
onMounted(() => (staff.load(), offices.load()))
const open = computed(() => offices.holds?.open ?? [])
const text = ref('')
const shown = computed(() => {
  const wanted = text.value.trim().toLowerCase()
  return wanted
    ? open.value.filter((one) =>
        `${one.name} ${one.number} ${one.title} ${one.office}`.toLowerCase().includes(wanted)
      )
    : open.value
})
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? offices.failure"
      :ready="staff.ready && Boolean(offices.holds)"
      @retry="(staff.load(), offices.load())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Holds{{ office ? ` of ${office}` : '' }}</h1>
          <span class="quiet"
            >{{ count(open.length, 'hold') }} that {{ open.length === 1 ? 'stands' : 'stand' }}</span
          >
          <span class="push find"><v-text-field v-model="text" label="student or hold" hide-details /></span>
          <HoldKinds v-if="!office" :kinds="offices.holds!.kinds" />
          <PlaceHolds :kinds="offices.holds!.kinds" />
        </div>
        <HoldsTable v-if="shown.length" :holds="shown" :opens="!office" />
        <p v-else class="card empty">{{ open.length ? `No hold fits “${text}”.` : 'No hold stands.' }}</p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.find {
  width: 240px;
}
.find :deep(.v-input) {
  width: 100%;
  max-width: none;
}
.empty {
  padding: 24px;
}
</style>
