<script setup lang="ts">
const college = useCollege()
const staff = useStaff()
const places = useStaffPlaces()
onMounted(() => staff.load())
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="Boolean(college.catalogContext)" @retry="staff.load()">
      <CourseWhole />
    </ViewState>
  </AppFrame>
</template>
