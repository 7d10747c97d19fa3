<script setup lang="ts">
import { GUIDANCE_ABOUT, type GuidanceAbout, type GuidanceText } from '#shared/catalog/guidance'
import { ABOUT_WORDS, FOUND_WORDS } from '#shared/catalog/guidanceWords'
import { guidanceBody } from '#shared/catalog/guidanceRequests'

/** A text of guidance: what it is about, what it says. */
const props = defineProps<{ text?: GuidanceText; programs: readonly { code: string; title: string }[] }>()
const emit = defineEmits<{ close: [] }>()
const college = useCollege()
const notice = useNotice()
const heading = useId()
const draft = ref({
  about: (props.text?.about ?? 'everybody') as GuidanceAbout,
  key: props.text?.key ?? '',
  title: props.text?.title ?? '',
  text: props.text?.text ?? '',
  link: props.text?.link ?? ''
})
const ABOUT = GUIDANCE_ABOUT.map((value) => ({ value, title: ABOUT_WORDS[value] }))
/** What there is of the kind that is chosen. */
const things = computed((): { value: string; title: string }[] => {
  switch (draft.value.about) {
    case 'program':
      return props.programs.map(({ code, title }) => ({ value: code, title }))
    case 'term':
      return (college.catalogContext?.terms ?? []).map(({ code, name }) => ({ value: code, title: name }))
    case 'course':
      return (college.catalogContext?.catalog.courses ?? []).map(({ code, title }) => ({
        value: code,
        title: `${code} ${title}`
      }))
    case 'finding':
      return Object.entries(FOUND_WORDS).map(([value, title]) => ({ value, title }))
    default:
      return []
  }
})
watch(
  () => draft.value.about,
  () => (draft.value.key = '')
)
const { busy, problem, errors, attempt, send } = useDraftCheck(guidanceBody, () => ({
  ...draft.value,
  key: draft.value.key ?? '',
  link: draft.value.link.trim() || null
}))
const save = () =>
  send(async (said) => {
    await api(`/api/guidance${props.text ? `/${props.text.id}` : ''}`, { method: 'POST', body: said })
    notice.say(`“${said.title}” is read from now on.`)
    emit('close')
  })
const drop = () =>
  attempt(async () => {
    await api(`/api/guidance/${props.text!.id}`, { method: 'DELETE' })
    notice.say(`“${props.text!.title}” is not read any more.`)
    emit('close')
  })
</script>

<template>
  <v-dialog
    :model-value="true"
    max-width="600"
    :aria-labelledby="heading"
    @update:model-value="emit('close')"
  >
    <form class="card guidance-form" novalidate @submit.prevent="save">
      <h2 :id="heading">{{ text ? 'Change a text' : 'A new text' }}</h2>
      <v-select v-model="draft.about" label="about" :items="ABOUT" />
      <v-autocomplete
        v-if="draft.about !== 'everybody'"
        v-model="draft.key"
        label="which"
        :items="things"
        :error-messages="errors('key')"
        auto-select-first
      />
      <v-text-field v-model="draft.title" label="title" maxlength="80" :error-messages="errors('title')" />
      <v-textarea
        v-model="draft.text"
        label="what is read"
        rows="3"
        auto-grow
        maxlength="600"
        :error-messages="errors('text')"
      />
      <v-text-field
        v-model="draft.link"
        label="address with more, if there is one"
        maxlength="300"
        :error-messages="errors('link')"
      />
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy">{{
          text ? 'Save it' : 'Publish it'
        }}</v-btn>
        <v-btn v-if="text" :disabled="busy" @click="drop">Take it away</v-btn>
        <v-btn @click="emit('close')">Cancel</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.guidance-form {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
.guidance-form h2,
.guidance-form p {
  margin: 0;
}
.guidance-form .v-input {
  width: 100%;
  max-width: none;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
</style>
