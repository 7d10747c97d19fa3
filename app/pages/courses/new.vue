<script setup lang="ts">
/** A course that is not in the catalog yet. */
useHead({ title: 'A new course · Ridgeway' })
const college = useCollege()
const staff = useStaff()
const places = useStaffPlaces()
onMounted(() => staff.load())
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure"
      :ready="staff.ready && Boolean(college.catalogContext)"
      @retry="staff.load()"
    >
      <CourseWriting />
    </ViewState>
  </AppFrame>
</template>
