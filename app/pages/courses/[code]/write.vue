<script setup lang="ts">
import type { WrittenCoursePage } from '#shared/catalog/writing'

/** A course while the registrar writes it anew. */
const route = useRoute()
useHead({ title: () => `${String(route.params.code).replace('-', ' ')} written anew · Ridgeway` })
const college = useCollege()
const staff = useStaff()
const places = useStaffPlaces()
const { known, failure, read } = useRead(() =>
  api<WrittenCoursePage>(`/api/catalog/${String(route.params.code)}/written`)
)
onMounted(() => (staff.load(), read()))
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(known && college.catalogContext)"
      @retry="(staff.load(), read())"
    >
      <CourseWriting :key="known!.version" :page="known" @reload="read" />
    </ViewState>
  </AppFrame>
</template>
