<script setup lang="ts">
import { subjectsBody, type CollegePage } from '#shared/offices/college'

/** Departments, and the subjects that are theirs. */
const props = defineProps<{ page: CollegePage }>()
const emit = defineEmits<{ saved: [] }>()
const { draft, isChanged, busy, problem, errors, save, reset } = useCollegePart(
  () => props.page,
  subjectsBody,
  ({ departments, subjects }) => ({ part: 'subjects' as const, departments, subjects }),
  () => emit('saved')
)
const departments = computed(() => draft.value.departments.map((one) => one.name).filter(Boolean))
/** Its subjects go along with a name that is written anew. */
function rename(i: number, name: string) {
  const before = draft.value.departments[i]!.name
  draft.value.departments[i]!.name = name
  for (const one of draft.value.subjects) if (one.department === before && before) one.department = name
}
function drop(i: number) {
  const [gone] = draft.value.departments.splice(i, 1)
  for (const one of draft.value.subjects) if (one.department === gone!.name) one.department = null
}
/** Subjects stay, so that those that are new are the last. */
const isNew = (i: number) => i >= props.page.subjects.length
const isNarrow = useNarrow()
/** Beside one another its column says what a field is. */
const labelled = (text: string) => (isNarrow.value ? text : undefined)
</script>

<template>
  <CollegePart
    title="Departments and subjects"
    about="A department edits the sections of its subjects. A course code begins with its subject."
    :is-changed="isChanged"
    :busy="busy"
    :problem="problem"
    @save="save"
    @reset="reset"
  >
    <div v-for="(department, i) in draft.departments" :key="i" class="row department">
      <v-text-field
        :model-value="department.name"
        :label="`department ${i + 1}`"
        maxlength="80"
        :error-messages="errors(`departments.${i}.name`)"
        @update:model-value="rename(i, $event)"
      />
      <v-text-btn :aria-label="`Take department ${i + 1} out`" @click="drop(i)">Take it out</v-text-btn>
    </div>
    <p v-if="errors('departments')" class="stops" role="alert">{{ errors('departments') }}</p>
    <div>
      <v-text-btn @click="draft.departments.push({ id: null, name: '' })">Add a department</v-text-btn>
    </div>
    <div class="row subject heads small quiet" aria-hidden="true">
      <span>subject</span><span>its name</span><span>college</span><span>department</span>
    </div>
    <div v-for="(subject, i) in draft.subjects" :key="`subject ${i}`" class="row subject">
      <v-text-field
        v-model="subject.code"
        :label="labelled(`subject ${i + 1}`)"
        :aria-label="`subject ${i + 1}`"
        maxlength="5"
        :readonly="!isNew(i)"
        :error-messages="errors(`subjects.${i}.code`)"
      />
      <v-text-field
        v-model="subject.name"
        :label="labelled(`name of subject ${i + 1}`)"
        :aria-label="`name of subject ${i + 1}`"
        maxlength="80"
        :error-messages="errors(`subjects.${i}.name`)"
      />
      <v-text-field
        v-model="subject.college"
        :label="labelled(`college of subject ${i + 1}`)"
        :aria-label="`college of subject ${i + 1}`"
        maxlength="80"
        :error-messages="errors(`subjects.${i}.college`)"
      />
      <v-select
        v-model="subject.department"
        :label="labelled(`department of subject ${i + 1}`)"
        :aria-label="`department of subject ${i + 1}`"
        :items="departments"
        clearable
        :error-messages="errors(`subjects.${i}.department`)"
      />
    </div>
    <p v-if="errors('subjects')" class="stops" role="alert">{{ errors('subjects') }}</p>
    <div>
      <v-text-btn @click="draft.subjects.push({ code: '', name: '', college: '', department: null })"
        >Add a subject</v-text-btn
      >
    </div>
  </CollegePart>
</template>

<style scoped>
.department {
  grid-template-columns: minmax(0, 1fr) auto;
}
.subject {
  grid-template-columns: 110px repeat(3, minmax(0, 1fr));
}
@media (max-width: 720px) {
  .subject {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
