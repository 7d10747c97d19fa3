<script setup lang="ts">
import { useDebounce } from '@vueuse/core'
import type { ProgramSpec } from '#core/degree'
import type { DraftPage } from '#shared/degree/drafts'
import { suggestedTerms } from '#shared/degree/programSheet'
import { readProgramText, type TextFault } from '#shared/degree/programText'
import { programOf, withDraft } from '#shared/catalog/context'
import { hueGiver } from '#shared/tokens'
import { count, creditsText } from '#shared/words'

/** A draft: its text, and beside it the program that it makes, what is wrong, and what it does to records. */
const props = defineProps<{ draft: DraftPage }>()
defineEmits<{ reload: [] }>()
const college = useCollege()
const notice = useNotice()
const { text, version, isKept, isBehind, problem, keep } = useDraftText(props.draft)
onBeforeRouteLeave(async () => {
  await keep()
  if (isKept.value) return true
  return window.confirm('The last changes are not kept. Leave all the same?')
})

const settled = useDebounce(text, 250)
const read = computed(() => {
  const { catalogContext } = college
  return catalogContext
    ? readProgramText(settled.value, {
        catalog: catalogContext.catalog,
        lists: catalogContext.lists,
        expects: props.draft.expects
      })
    : undefined
})
const faults = computed(() => read.value?.faults ?? [])
const completions = useCompletions()
/** What could be read last stays in sight while the text cannot be read. */
const spec = computed<ProgramSpec | undefined>((last) => read.value?.spec ?? last)
const program = computed(() => {
  const { catalogContext } = college
  return catalogContext && spec.value && programOf(withDraft(spec.value, catalogContext), catalogContext)
})
const hues = computed(() => {
  const hueOf = hueGiver()
  return new Map(spec.value?.areas.map((area) => [area.id, hueOf(area).hue]))
})
const hueOf = (area: string) => hues.value.get(area) ?? 0
const terms = computed(() =>
  program.value && college.catalogContext ? suggestedTerms(program.value, college.catalogContext.catalog) : []
)

const SIDES = [
  { value: 'program', title: 'The program' },
  { value: 'effect', title: 'Its effect' }
] as const
const side = ref<(typeof SIDES)[number]['value']>('program')
const editor = useTemplateRef<{ show: (place: TextFault) => void }>('editor')
const state = computed(() => {
  if (isBehind.value) return 'Not kept'
  if (problem.value) return `Not kept: ${problem.value}`
  return isKept.value ? 'Kept' : 'Being kept'
})

const attempt = useAttempt()
const asking = ref<'publish' | 'drop'>()
const publish = () =>
  attempt.attempt(async () => {
    await keep()
    if (!isKept.value)
      throw new Failure(409, { code: 'notKept', message: 'The last changes are not kept yet.' })
    const body = { version: version.value }
    await api(`/api/programs/drafts/${props.draft.id}/publication`, { method: 'POST', body })
    notice.say(`${props.draft.code} ${props.draft.catalogYear} is published.`)
    asking.value = undefined
    await navigateTo('/programs')
  })
const drop = () =>
  attempt.attempt(async () => {
    await api(`/api/programs/drafts/${props.draft.id}`, { method: 'DELETE' })
    // Nothing is left to be kept.
    text.value = props.draft.text
    asking.value = undefined
    isBehind.value = true
    notice.say(`The draft of ${props.draft.code} ${props.draft.catalogYear} is thrown away.`)
    await navigateTo('/programs')
  })
</script>

<template>
  <div class="page draft">
    <div class="page-head">
      <h1>{{ spec?.title ?? draft.title }}</h1>
      <span class="pill">catalog {{ draft.catalogYear }}</span>
      <span v-if="spec" class="pill">{{ creditsText(spec.credits) }}</span>
      <span class="quiet" role="status">{{ state }}</span>
      <span class="push acts">
        <v-btn
          variant="flat"
          color="primary"
          :disabled="faults.length > 0 || !spec"
          @click="((attempt.problem.value = ''), (asking = 'publish'))"
          >Publish</v-btn
        >
        <v-btn @click="((attempt.problem.value = ''), (asking = 'drop'))">Throw away</v-btn>
      </span>
      <NuxtLink class="textlink" to="/programs">Programs</NuxtLink>
    </div>
    <p v-if="isBehind && !asking" class="card behind" role="alert">
      Somebody else has changed this draft meanwhile. What you wrote is still here and is not kept: copy what
      you need, then
      <v-text-btn @click="$emit('reload')">read what is there now</v-text-btn>.
    </p>
    <div class="halves">
      <section class="card written" aria-label="The text">
        <LazyCodeText
          ref="editor"
          v-model="text"
          label="The program as text"
          is-yaml
          :faults="faults"
          :offers="completions.ofProgram"
        />
      </section>
      <div class="beside">
        <section class="card faults" aria-labelledby="faults-title">
          <h2 id="faults-title" role="status">
            {{ faults.length ? count(faults.length, 'fault') : 'Nothing is wrong with it' }}
          </h2>
          <ul v-if="faults.length">
            <li v-for="(one, i) in faults" :key="i">
              <v-bare-btn @click="editor?.show(one)"
                ><span class="quiet">line {{ one.line }}</span> {{ one.message }}</v-bare-btn
              >
            </li>
          </ul>
        </section>
        <section class="card">
          <div class="sides" role="group" aria-label="What is shown beside the text">
            <ChoicePills v-model="side" :items="SIDES" />
          </div>
          <div v-show="side === 'program'" class="shown">
            <p v-if="!spec" class="quiet">As soon as the text can be read, the program stands here.</p>
            <template v-else>
              <p v-if="!read?.spec" class="quiet">As it could be read last:</p>
              <p v-if="spec.note">{{ spec.note }}</p>
              <ProgramAreas :spec="spec" :hue-of="hueOf" :program="program" />
              <h3>By term</h3>
              <ProgramTerms :terms="terms" :hue-of="hueOf" />
            </template>
          </div>
          <DraftEffects
            v-if="side === 'effect'"
            class="shown"
            :draft="draft"
            :text="settled"
            :is-readable="Boolean(read?.spec)"
          />
        </section>
      </div>
    </div>
    <v-dialog
      :model-value="Boolean(asking)"
      max-width="480"
      aria-labelledby="asking-title"
      @update:model-value="asking = undefined"
    >
      <div class="card asking">
        <template v-if="asking === 'publish'">
          <h2 id="asking-title">Publish {{ draft.code }} {{ draft.catalogYear }}</h2>
          <p>
            It is a version for good: a published one is never edited. Nobody’s record changes; students who
            are given this program from now on can be given this version.
          </p>
        </template>
        <template v-else>
          <h2 id="asking-title">Throw the draft away</h2>
          <p>The text of {{ draft.code }} {{ draft.catalogYear }} is gone then, for everybody.</p>
        </template>
        <p v-if="attempt.problem.value" class="stops" role="alert">
          {{ attempt.problem.value }} {{ attempt.fields.value.get('text') }}
        </p>
        <div class="acts">
          <v-btn
            variant="flat"
            :color="asking === 'publish' ? 'primary' : 'error'"
            :disabled="attempt.busy.value"
            @click="asking === 'publish' ? publish() : drop()"
            >{{ asking === 'publish' ? 'Publish it' : 'Throw it away' }}</v-btn
          >
          <v-btn @click="asking = undefined">Cancel</v-btn>
        </div>
      </div>
    </v-dialog>
  </div>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}
.written {
  position: sticky;
  top: 70px;
  height: calc(100vh - 166px);
  min-height: 320px;
  overflow: hidden;
}
.beside {
  display: grid;
  gap: 12px;
}
.beside > .card {
  padding: 12px 14px;
}
.faults ul {
  list-style: none;
  padding: 0;
  margin-top: 6px;
}
.faults li {
  padding: 3px 0;
}
.sides {
  display: flex;
  gap: 6px;
}
.shown {
  margin-top: 10px;
}
.acts {
  display: flex;
  gap: 10px;
}
.behind {
  padding: 10px 14px;
  margin-bottom: 10px;
}
.asking {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .written {
    position: static;
    height: 60vh;
  }
}
</style>
