<script setup lang="ts">
import { obstacleText } from '#wire/words'
import type { Course } from '#core/catalog'
import { obstacles } from '#core/route'

/** Puts the course on the route in a term, and says before what speaks against it there. */
const props = defineProps<{ course: Course }>()
const emit = defineEmits<{ placed: [] }>()
const term = defineModel<string>({ required: true })
const college = useCollege()
const student = useStudent()
const place = usePlacing()
const against = computed(() => {
  const found = place.terms.value.find((one) => one.code === term.value)
  return student.reading && found ? obstacles(student.reading.context, props.course.code, found) : []
})
async function put() {
  if (await place.put([props.course], term.value)) emit('placed')
}
</script>

<template>
  <form class="place" @submit.prevent="put">
    <label>
      Term
      <select v-model="term" class="field">
        <option v-for="one in place.terms.value.slice(0, 9)" :key="one.code" :value="one.code">
          {{ one.name }}
        </option>
      </select>
    </label>
    <v-btn type="submit" variant="flat" color="primary">Put on the route</v-btn>
  </form>
  <p v-if="against.length" class="stops small">{{ obstacleText(against[0]!, college.termName(term)) }}</p>
</template>

<style scoped>
.place {
  display: flex;
  gap: 10px;
  align-items: end;
  margin-top: 14px;
}
label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--quiet);
}
.field {
  height: 33px;
  padding: 0 8px;
}
</style>
