<script setup lang="ts">
import type { WrittenCourse } from '#shared/catalog/writing'
import { count } from '#shared/words'

/** What a course as it is written would make of the degrees of those who have it. */
const props = defineProps<{ course: WrittenCourse | undefined }>()
const { of, rows, wantsAll, problem, isBusy } = useCourseEffect(toRef(props, 'course'))
const told = computed(() => rows.value.filter((one) => one.effects.length))
const summary = computed(() => {
  if (!props.course) return 'As soon as nothing is wrong with it, degrees are audited with it.'
  if (isBusy.value) return rows.value.length ? `Auditing: ${rows.value.length} of ${of.value}` : 'Auditing'
  if (!of.value) return 'Nobody has it, or a course that counts with it, on their route or record.'
  const looked = `${count(rows.value.length, 'student')} looked at who have it, or what counts with it`
  return told.value.length
    ? `${looked}: figures change for ${told.value.length}.`
    : `${looked}: no figure changes.`
})
</script>

<template>
  <div class="effect">
    <p role="status" class="summary">{{ summary }}</p>
    <label v-if="course && (of > rows.length || wantsAll)"
      ><v-checkbox-btn v-model="wantsAll" /> all {{ of }}, not only some</label
    >
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <ul :class="{ old: isBusy || !course }">
      <li v-for="row in told" :key="row.id">
        <NuxtLink class="textlink" :to="`/students/${row.id}/route`" target="_blank">{{ row.name }}</NuxtLink>
        <span class="quiet small">{{ row.number }}</span>
        <EffectList class="figures" :effects="row.effects" />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.effect {
  display: grid;
  gap: 8px;
}
.summary {
  font-weight: 650;
  margin: 0;
}
label {
  display: flex;
  align-items: center;
}
ul {
  list-style: none;
  padding: 0;
}
.old {
  opacity: 0.55;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  align-items: baseline;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.figures {
  flex-basis: 100%;
}
</style>
