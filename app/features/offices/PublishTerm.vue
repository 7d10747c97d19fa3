<script setup lang="ts">
import type { PublicationEffect, TermRow } from '#shared/offices/terms'
import { instantText } from '#shared/when'
import { count } from '#shared/words'

/** Publication of a term: whom it concerns, then done for good. */
const props = defineProps<{ row: TermRow }>()
const terms = useTerms()
const college = useCollege()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()
const effect = shallowRef<PublicationEffect>()
/** What was looked at is of the term as it was. */
watch(
  () => [props.row.sections, props.row.openings],
  () => (effect.value = undefined)
)
const look = () => attempt(async () => (effect.value = await terms.effect(props.row.code)))
const publish = () =>
  attempt(async () => {
    const { told } = await terms.publish(props.row.code)
    notice.say(`${props.row.name} is published. ${count(told, 'student')} told.`)
  })
const MOST = 8
</script>

<template>
  <section aria-labelledby="publish-title">
    <h2 id="publish-title">Publication</h2>
    <p v-if="row.published">
      Published: students see its sections and seats. Seats are held by {{ count(row.held, 'student') }}.
    </p>
    <template v-else>
      <p class="quiet">
        Not published: students plan into it by the usual pattern of the courses, and see no sections.
      </p>
      <div v-if="effect" role="status">
        <p>
          {{ count(effect.planned, 'student') }} planned something for it and
          {{ effect.planned === 1 ? 'is' : 'are' }} told. They see {{ count(effect.sections, 'section') }} of
          {{ count(effect.courses, 'course') }}.
        </p>
        <p v-if="effect.without.length" class="stops">
          Planned, without a section:
          {{
            effect.without
              .slice(0, MOST)
              .map((one) => `${one.course} (${one.students})`)
              .join(', ')
          }}{{ effect.without.length > MOST ? ` and ${effect.without.length - MOST} more` : '' }}. Their
          routes say so from then on.
        </p>
        <p v-if="effect.unopened" class="stops">
          No opening is for {{ effect.unopened }} of those who planned something.
        </p>
        <ul v-if="effect.openings.length" class="quiet">
          <li v-for="one in effect.openings" :key="`${one.title} ${one.opens}`">
            {{ instantText(one.opens, college.zone) }}: {{ one.title }}, {{ count(one.students, 'student') }}
          </li>
        </ul>
      </div>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <v-btn v-if="effect" variant="flat" color="primary" :disabled="busy" @click="publish"
        >Publish {{ row.name }} for good</v-btn
      >
      <v-btn v-else :disabled="busy || !row.sections" @click="look">See whom it concerns</v-btn>
      <span v-if="!row.sections" class="quiet small"> It needs sections first.</span>
    </template>
  </section>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
}
ul {
  margin: 0 0 8px;
  padding-left: 18px;
}
</style>
