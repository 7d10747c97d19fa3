<script setup lang="ts">
import { PART_WORDS, type RecordRead } from '#shared/record/reads'
import { campusMinute, clockTime, dayText } from '#shared/when'
import { ROLE_WORDS } from '#shared/words'

/** Who else has read the record of the student who is signed in: every reading is logged. */
const props = defineProps<{ student: number }>()
const college = useCollege()
const {
  known: reads,
  failure,
  read
} = useRead(() => api<RecordRead[]>(`/api/students/${props.student}/reads`))
onMounted(read)
const SHOWN = 8
const all = ref(false)
const list = computed(() => (all.value ? reads.value : reads.value?.slice(0, SHOWN)) ?? [])
</script>

<template>
  <section class="card reads" aria-labelledby="reads-title">
    <h2 id="reads-title">Who has read your record</h2>
    <p v-if="failure" class="stops" role="alert">
      {{ failure }} <v-text-btn @click="read">Try again</v-text-btn>
    </p>
    <p v-else-if="reads?.length === 0" class="quiet">Nobody but you, so far.</p>
    <ul v-else>
      <li v-for="one in list" :key="`${one.on} ${one.by}`">
        <strong>{{ one.by }}</strong> <span class="quiet">{{ ROLE_WORDS[one.role] }}</span>
        <span>{{ dayText(one.on) }}, last at {{ clockTime(campusMinute(one.last, college.zone)) }}</span>
        <span class="quiet">{{ one.parts.map((part) => PART_WORDS[part]).join(', ') }}</span>
      </li>
    </ul>
    <v-text-btn v-if="!all && (reads?.length ?? 0) > SHOWN" @click="all = true">Earlier ones</v-text-btn>
  </section>
</template>

<style scoped>
.reads {
  margin-top: 12px;
  padding: 12px 15px;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
</style>
