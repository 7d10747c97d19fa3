<script setup lang="ts">
import type { CourseListView } from '#shared/catalog/responses'
import { listedCourses } from '#shared/catalog/writing'
import { yearAfter } from '#shared/degree/drafts'
import { count } from '#shared/words'

/** The named course lists that programs ask for, one version for each catalog year. */
const college = useCollege()
const lists = computed(() => {
  const byName = new Map<string, CourseListView[]>()
  for (const one of college.view?.lists ?? []) byName.set(one.name, [one, ...(byName.get(one.name) ?? [])])
  return [...byName.values()]
})
const heldBy = (list: CourseListView) => {
  const found = listedCourses(list, college.catalogContext!.catalog, college.view!.lists)
  return 'courses' in found ? count(found.courses.length, 'course') : 'cannot be read'
}
/** The list that is begun with; of a new one there is nothing yet. */
const begun = ref<CourseListView>()
const EMPTY = { name: '', catalogYear: '', title: '', from: '' }
const begin = (newest?: CourseListView) =>
  (begun.value = newest ? { ...newest, catalogYear: yearAfter(newest.catalogYear) } : EMPTY)
</script>

<template>
  <section v-if="college.catalogContext" aria-labelledby="lists-title">
    <div class="head">
      <h2 id="lists-title">Course lists</h2>
      <v-text-btn @click="begin()">Write a list</v-text-btn>
    </div>
    <p v-if="!lists.length" class="quiet">
      No list yet: courses that several programs ask for are named once, and asked for by “list” and the name.
    </p>
    <v-table v-else class="card">
      <thead>
        <tr>
          <th scope="col">List</th>
          <th scope="col">Holds</th>
          <th scope="col"><span class="visually-hidden">What can be done</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="versions in lists" :key="versions[0]!.name">
          <th scope="row">
            {{ versions[0]!.title }}<span class="quiet block">{{ versions[0]!.name }}</span>
          </th>
          <td>
            <span v-for="one in versions" :key="one.catalogYear" class="block"
              >{{ one.catalogYear }} <span class="quiet">{{ heldBy(one) }}: {{ one.from }}</span></span
            >
          </td>
          <td>
            <v-text-btn
              :aria-label="`Write the next year of ${versions[0]!.title}`"
              @click="begin(versions[0])"
              >Write the next</v-text-btn
            >
          </td>
        </tr>
      </tbody>
    </v-table>
    <ListForm v-if="begun" :begun="begun" :is-new="!begun.name" @close="begun = undefined" />
  </section>
</template>

<style scoped>
section {
  margin-bottom: 16px;
}
.head {
  display: flex;
  gap: 14px;
  align-items: baseline;
  margin-bottom: 4px;
}
.block {
  display: block;
}
</style>
