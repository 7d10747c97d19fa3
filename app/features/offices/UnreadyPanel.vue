<script setup lang="ts">
import { LACK_WORDS, LACKS, type OpeningFigures, type Unready } from '#shared/offices/openings'
import { instantText } from '#shared/when'
import { capital, count } from '#shared/words'

/** Who of an opening is not ready, by what they lack; whoever lacks several stands under each. */
const props = defineProps<{ opening: OpeningFigures }>()
const emit = defineEmits<{ close: [] }>()
const college = useCollege()
const { known, failure, read } = useRead(() => api<Unready[]>(`/api/openings/${props.opening.id}/unready`))
watch(() => props.opening, read, { immediate: true })
const groups = computed(() =>
  LACKS.map((lack) => ({
    lack,
    people: (known.value ?? []).filter((one) => one.lacks.includes(lack))
  })).filter((one) => one.people.length)
)
</script>

<template>
  <SidePanel :label="`Not ready: ${opening.title}`" @close="emit('close')">
    <template #top><span class="quiet">{{ instantText(opening.opens, college.zone) }}</span></template>
    <h2>{{ capital(opening.title) }}</h2>
    <p v-if="failure" class="stops" role="alert">{{ failure }}</p>
    <p v-else-if="!known" class="quiet" aria-busy="true">Reading …</p>
    <p v-else role="status">
      {{
        known.length
          ? `${count(known.length, 'student')} of ${opening.students} not ready`
          : 'Everybody is ready.'
      }}
    </p>
    <section v-for="{ lack, people } in groups" :key="lack" :aria-labelledby="`lack-${lack}`">
      <h3 :id="`lack-${lack}`">
        {{ capital(LACK_WORDS[lack]) }} <span class="quiet">{{ people.length }}</span>
      </h3>
      <ul>
        <li v-for="one in people" :key="one.student">
          <NuxtLink class="textlink" :to="`/students/${one.student}/degree`">{{ one.name }}</NuxtLink>
          <span class="quiet small">{{ one.number }}{{ one.advisor ? ` · ${one.advisor}` : '' }}</span>
        </li>
      </ul>
    </section>
  </SidePanel>
</template>

<style scoped>
h2 {
  margin: 6px 0 2px;
}
h3 {
  margin: 14px 0 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  justify-content: space-between;
  padding: 4px 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
</style>
