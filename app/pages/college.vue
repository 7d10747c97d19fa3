<script setup lang="ts">
import type { CollegePage } from '#shared/offices/college'

/** What the college itself is: where a new one begins. */
useHead({ title: 'The college · Ridgeway' })
const staff = useStaff()
const places = useStaffPlaces()
const { known, failure, read } = useRead(() => api<CollegePage>('/api/college'))
onMounted(() => (staff.load(), read()))
/** What is on screen everywhere is of the college as it is now. */
const saved = async () => {
  await read()
  await staff.load()
}
const PARTS = [
  { value: 'frame', title: 'The college' },
  { value: 'rooms', title: 'Rooms' },
  { value: 'subjects', title: 'Departments and subjects' },
  { value: 'categories', title: 'Categories' },
  { value: 'grades', title: 'Grades' }
] as const
const part = ref<(typeof PARTS)[number]['value']>('frame')
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="failure" :ready="Boolean(known)" @retry="read">
      <div class="page">
        <div class="page-head">
          <h1>{{ known!.name || 'A college' }}</h1>
          <span v-if="!known!.version" class="quiet"
            >begin here, or <NuxtLink class="textlink" to="/files">bring it as files</NuxtLink></span
          >
          <NuxtLink class="textlink push" to="/terms">Terms</NuxtLink>
        </div>
        <div class="parts" role="group" aria-label="What is shown of the college">
          <ChoicePills v-model="part" :items="known!.version ? PARTS : PARTS.slice(0, 1)" />
        </div>
        <FramePart v-show="part === 'frame'" :page="known!" @saved="saved" />
        <template v-if="known!.version">
          <RoomsPart v-show="part === 'rooms'" :page="known!" @saved="saved" />
          <SubjectsPart v-show="part === 'subjects'" :page="known!" @saved="saved" />
          <CategoriesPart v-show="part === 'categories'" :page="known!" @saved="saved" />
          <GradesPart v-show="part === 'grades'" :page="known!" @saved="saved" />
        </template>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 10px;
}
</style>
