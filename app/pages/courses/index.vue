<script setup lang="ts">
useHead({ title: 'Courses · Ridgeway' })
const college = useCollege()
const staff = useStaff()
const places = useStaffPlaces()
onMounted(() => staff.load())
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="Boolean(college.catalogContext)" @retry="staff.load()">
      <CourseFinder />
    </ViewState>
  </AppFrame>
</template>
