<script setup lang="ts">
import { categoriesBody, type CollegePage } from '#shared/offices/college'

/** Categories of courses, by family. */
const props = defineProps<{ page: CollegePage }>()
const emit = defineEmits<{ saved: [] }>()
const { draft, isChanged, busy, problem, errors, save, reset } = useCollegePart(
  () => props.page,
  categoriesBody,
  ({ categories }) => ({ part: 'categories' as const, categories }),
  () => emit('saved')
)
const add = () =>
  draft.value.categories.push({
    id: null,
    family: draft.value.categories.at(-1)?.family ?? '',
    code: '',
    title: ''
  })
const isNarrow = useNarrow()
/** Beside one another its column says what a field is. */
const labelled = (text: string) => (isNarrow.value ? text : undefined)
</script>

<template>
  <CollegePart
    title="Categories of courses"
    about="Courses are found by them, and programs ask for them: category lab."
    :is-changed="isChanged"
    :busy="busy"
    :problem="problem"
    @save="save"
    @reset="reset"
  >
    <div class="row category heads small quiet" aria-hidden="true">
      <span>family</span><span>code</span><span>title</span>
    </div>
    <div v-for="(category, i) in draft.categories" :key="i" class="row category">
      <v-text-field
        v-model="category.family"
        :label="labelled(`family of category ${i + 1}`)"
        :aria-label="`family of category ${i + 1}`"
        maxlength="40"
        :error-messages="errors(`categories.${i}.family`)"
      />
      <v-text-field
        v-model="category.code"
        :label="labelled(`code of category ${i + 1}`)"
        :aria-label="`code of category ${i + 1}`"
        maxlength="24"
        :error-messages="errors(`categories.${i}.code`)"
      />
      <v-text-field
        v-model="category.title"
        :label="labelled(`title of category ${i + 1}`)"
        :aria-label="`title of category ${i + 1}`"
        maxlength="80"
        :error-messages="errors(`categories.${i}.title`)"
      />
      <v-text-btn :aria-label="`Take category ${i + 1} out`" @click="draft.categories.splice(i, 1)"
        >Take it out</v-text-btn
      >
    </div>
    <p v-if="errors('categories')" class="stops" role="alert">{{ errors('categories') }}</p>
    <div><v-text-btn @click="add">Add a category</v-text-btn></div>
  </CollegePart>
</template>

<style scoped>
.category {
  grid-template-columns: repeat(3, minmax(0, 1fr)) auto;
}
@media (max-width: 720px) {
  .category {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
