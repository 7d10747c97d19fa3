<script setup lang="ts">
useHead({ title: 'Requests · Ridgeway' })
const staff = useStaff()
const places = useStaffPlaces()
onMounted(() => staff.load())
const list = computed(() => staff.requests ?? [])
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>Requests</h1>
          <span class="push quiet">asked for first, answered first</span>
        </div>
        <RequestCard v-for="one in list" :key="one.id" :request="one" />
        <p v-if="!list.length" class="card empty">No request waits for you.</p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.empty {
  padding: 24px;
}
</style>
