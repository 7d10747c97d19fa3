<script setup lang="ts">
import type { CourseListView } from '#shared/catalog/responses'
import { listedCourses } from '#shared/catalog/writing'
import { listBody } from '#shared/catalog/writingRequests'
import { count } from '#shared/words'

/** A course list of a year: its text, and the courses that it holds. */
const props = defineProps<{ begun: CourseListView; isNew: boolean }>()
const emit = defineEmits<{ close: [] }>()
const college = useCollege()
const notice = useNotice()
const completions = useCompletions()
const heading = useId()
const draft = ref({ ...props.begun })
const { busy, problem, errors, send } = useDraftCheck(listBody, () => draft.value)
const listed = computed(() =>
  draft.value.from.trim() && college.catalogContext
    ? listedCourses(draft.value, college.catalogContext.catalog, college.view!.lists)
    : undefined
)
const fault = computed(() => {
  if (!listed.value || !('fault' in listed.value)) return undefined
  const { fault: message, at } = listed.value
  const from = Math.min(at, Math.max(0, draft.value.from.length - 1))
  return { from, to: Math.min(draft.value.from.length, from + 1), message }
})
const save = () =>
  send(async (said) => {
    const { courses } = await api<{ courses: number }>('/api/catalog/lists', { method: 'POST', body: said })
    notice.say(`${said.title} holds ${count(courses, 'course')} from ${said.catalogYear} on.`)
    emit('close')
    return true
  })
</script>

<template>
  <v-dialog
    :model-value="true"
    max-width="620"
    :aria-labelledby="heading"
    @update:model-value="emit('close')"
  >
    <form class="card list-form" novalidate @submit.prevent="save">
      <h2 :id="heading">{{ isNew ? 'A course list' : `${begun.title}, a later year` }}</h2>
      <p class="quiet">
        It holds for programs of its catalog year and later ones; those that are published keep the list of
        theirs.
      </p>
      <v-text-field
        v-if="isNew"
        v-model="draft.name"
        label="name, as programs ask for it"
        maxlength="40"
        :error-messages="errors('name')"
      />
      <v-text-field v-model="draft.title" label="title" maxlength="120" :error-messages="errors('title')" />
      <v-text-field
        v-model="draft.catalogYear"
        label="from the catalog year, such as 2028-29"
        maxlength="7"
        :error-messages="errors('catalogYear')"
      />
      <RuleField
        v-model="draft.from"
        title="courses"
        label="The courses, as a set"
        :fault="fault"
        :offers="completions.ofSet"
        :error="errors('from')"
      />
      <p role="status" class="quiet small">
        <template v-if="!listed">No course yet.</template>
        <template v-else-if="'fault' in listed">It cannot be read yet: {{ listed.fault }}.</template>
        <template v-else
          >{{ count(listed.courses.length, 'course')
          }}<template v-if="listed.courses.length"
            >: {{ listed.courses.slice(0, 12).join(', ')
            }}{{ listed.courses.length > 12 ? ' …' : '' }}</template
          ></template
        >
      </p>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy">Publish it</v-btn>
        <v-btn @click="emit('close')">Cancel</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.list-form {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
.list-form h2,
.list-form p {
  margin: 0;
}
.list-form .v-input {
  width: 100%;
  max-width: none;
}
.acts {
  display: flex;
  gap: 10px;
}
</style>
