<script setup lang="ts">
import { count } from '#shared/words'

useHead({ title: 'Holds · Ridgeway' })
const staff = useStaff()
const offices = useOffices()
const places = useStaffPlaces()
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
          <h1>Holds</h1>
          <span class="quiet">{{ count(open.length, 'hold') }} that stand</span>
          <span class="push find"
            ><v-text-field v-model="text" label="student, hold or office" hide-details
          /></span>
          <HoldKinds :kinds="offices.holds!.kinds" />
          <PlaceHolds :kinds="offices.holds!.kinds" />
        </div>
        <HoldsTable v-if="shown.length" :holds="shown" />
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
