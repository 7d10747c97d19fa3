<script setup lang="ts">
import { count } from '#shared/words'
import type { FoundGroup } from './useFoundCourses'

/** The subjects of each college, with what there is of use for the student. */
const props = defineProps<{ groups: readonly FoundGroup[] }>()
const emit = defineEmits<{ choose: [subject: string] }>()
const student = useStudent()

const byCollege = computed(() => {
  const colleges = new Map<string, FoundGroup[]>()
  for (const group of props.groups) {
    const name = group.lines[0]!.college
    colleges.set(name, [...(colleges.get(name) ?? []), group])
  }
  return [...colleges].map(([name, list]) => ({ name, groups: list }))
})
const useful = (group: FoundGroup) =>
  group.lines.filter((line) => !line.there && line.needs.some((need) => !need.free)).length
</script>

<template>
  <div class="shelves">
    <section v-for="shelf in byCollege" :key="shelf.name" class="card shelf">
      <h2>{{ shelf.name }}</h2>
      <ul>
        <li v-for="group in shelf.groups" :key="group.subject">
          <v-bare-btn @click="emit('choose', group.subject)">
            <span class="name">{{ group.name }}</span>
            <span class="quiet small">{{ group.subject }} · {{ count(group.lines.length, 'course') }}</span>
            <span v-if="useful(group)" class="use small"
              >{{ useful(group) }} for {{ student.say('your') }} needs</span
            >
          </v-bare-btn>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.shelves {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 12px;
  align-items: start;
}
.shelf {
  padding: 10px 0 4px;
}
.shelf h2 {
  padding: 0 14px 6px;
}
.shelf ul {
  list-style: none;
  padding: 0;
}
.shelf button {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 104px;
  gap: 10px;
  align-items: baseline;
  width: 100%;
  padding: 6px 14px;
  border-top: 1px solid var(--rule);
}
.shelf button:hover .name {
  text-decoration: underline;
}
.use {
  grid-column: 3;
  text-align: right;
  color: var(--dusk);
}
</style>
