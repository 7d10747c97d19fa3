<script setup lang="ts">
import type { Program, ProgramSpec } from '#core/degree'
import { needAmount, needLines, needRule } from '#shared/degree/programSheet'
import { count, creditsText } from '#shared/words'

/** A bare program by area; with the program made ready, how many courses of the catalog each need takes. */
const props = defineProps<{
  spec: ProgramSpec
  hueOf: (area: string) => number
  program?: Program | undefined
}>()
const college = useCollege()
const lists = computed(() => college.view?.lists ?? [])
const fitting = computed(
  () =>
    new Map(
      props.program?.needs.map((need) => [
        need.id,
        (college.catalogContext?.catalog.courses ?? []).filter((course) => need.set.has(course)).length
      ])
    )
)
const sharing = ({ shares }: ProgramSpec['areas'][number]) => {
  if (!shares) return ''
  const others = props.spec.areas.filter((one) => shares.with.includes(one.id)).map((one) => one.title)
  return `may share ${creditsText(shares.credits)} with ${others.join(', ')}`
}
</script>

<template>
  <div>
    <div v-for="area in spec.areas" :key="area.id" class="area" :class="`hue-${hueOf(area.id)}`">
      <h3>{{ area.title }} <span class="quiet small">{{ sharing(area) }}</span></h3>
      <p v-if="area.note" class="quiet small">{{ area.note }}</p>
      <dl>
        <template v-for="{ need, under } in needLines(area.needs)" :key="need.id">
          <dt>{{ need.title }} <span class="quiet small">{{ under }}</span></dt>
          <dd>
            {{ needAmount(need) }}<span class="quiet"> · {{ needRule(need, lists) }}</span>
            <span v-if="fitting.has(need.id)" class="quiet small">
              · {{ count(fitting.get(need.id)!, 'course') }} can serve</span
            >
          </dd>
        </template>
      </dl>
    </div>
    <template v-if="spec.conditions?.length || spec.limits?.length">
      <h3>Beside courses</h3>
      <ul>
        <li v-for="one in spec.conditions" :key="one.id">{{ one.title }}</li>
        <li v-for="one in spec.limits" :key="one.title">{{ one.title }}</li>
      </ul>
    </template>
    <template v-if="spec.entry">
      <h3>{{ spec.entry.title }}</h3>
      <ul>
        <li v-for="{ need } in needLines(spec.entry.needs)" :key="need.id">{{ need.title }}</li>
        <li v-for="one in spec.entry.conditions" :key="one.id">{{ one.title }}</li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.area {
  border-left: 6px solid var(--hue);
  padding: 2px 0 2px 12px;
  margin: 8px 0;
}
dl {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 2px 14px;
}
dt,
dd {
  padding: 2px 0;
}
ul {
  margin: 4px 0;
  padding-left: 18px;
}
@media (max-width: 720px) {
  dl {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
