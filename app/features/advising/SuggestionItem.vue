<script setup lang="ts">
import { singles } from '#core/route'
import { goneText, type Suggestion } from '#shared/advising/suggestions'
import { changeText } from '#shared/route/texts'
import { ago } from '#shared/when'

/** A suggestion: what it would change, why, what that comes to, and the answer. */
const props = defineProps<{ suggestion: Suggestion }>()
const student = useStudent()
const suggestions = useSuggestions()
const suggestionChanges = useSuggestionChanges()
const college = useCollege()
const clock = useClock()
const talk = useTalk()

const title = computed(() => changeText(props.suggestion.change, college.shortTerm))
/** Each part, where the title does not tell them. */
const parts = computed(() => {
  const all = singles(props.suggestion.change)
  return all.length > 2 ? all.map((one) => changeText(one, college.shortTerm)) : []
})
const placed = computed(() => suggestions.placed.find((one) => one.suggestion.id === props.suggestion.id))
const effects = computed(() => suggestions.effects.get(props.suggestion.id))
const now = computed(() => placed.value?.now)
const waits = computed(() => props.suggestion.state === 'waiting')
const key = computed(() => `suggestion-${props.suggestion.id}`)
const who = computed(() => (props.suggestion.own ? 'You' : props.suggestion.by))

/** What is being written: an answer with words, or why it is suggested. */
const writing = ref<'decline' | 'why'>()
const words = ref('')
const { busy, once } = useOnce()
async function settle(act: () => Promise<boolean>) {
  if (await once(act)) writing.value = undefined
}
function write(what: 'decline' | 'why') {
  words.value = what === 'why' ? (props.suggestion.why ?? '') : ''
  writing.value = what
}
const { id } = props.suggestion
const accept = () => settle(() => suggestionChanges.answerSuggestions([id], 'accepted'))
const decline = (said: string | null) =>
  settle(() => suggestionChanges.answerSuggestions([id], 'declined', said))
function send() {
  const said = words.value.trim() || null
  void (writing.value === 'why' ? settle(() => suggestionChanges.explainSuggestion(id, said)) : decline(said))
}
</script>

<template>
  <article
    class="suggestion"
    :class="{ lit: talk.lit === key }"
    :aria-label="`Suggestion ${suggestion.number}: ${title}`"
    @mouseenter="talk.lit = key"
    @mouseleave="talk.lit = undefined"
    @focusin="talk.lit = key"
    @focusout="talk.lit = undefined"
  >
    <header>
      <LeafPin :number="suggestion.number" :state="suggestion.state" />
      <strong>{{ title }}</strong>
      <span class="state" :class="{ waits }">{{ suggestion.state }}</span>
    </header>
    <ul v-if="parts.length && waits" class="small">
      <li v-for="part in parts" :key="part">{{ part }}</li>
    </ul>
    <p class="small quiet">
      {{ who }}, {{ ago(suggestion.at, clock.minute, college.zone)
      }}<template v-if="suggestion.why">: <span class="said">{{ suggestion.why }}</span></template>
    </p>
    <p v-if="suggestion.answer" class="small quiet">
      {{ suggestion.answer.by }}, {{ ago(suggestion.answer.at, clock.minute, college.zone)
      }}<template v-if="suggestion.answer.words"
        >: <span class="said">{{ suggestion.answer.words }}</span></template
      >
    </p>
    <template v-if="waits && now">
      <p v-if="now.is === 'gone'" class="small gone">
        It cannot be made as the route is now: {{ goneText(now) }}.
      </p>
      <p v-else-if="now.is === 'done'" class="small">The route is so already.</p>
      <template v-else>
        <p v-if="now.follows.length" class="small">
          {{
            student.say(
              `You have moved ${now.follows.join(', ')} since it was suggested; it is taken from there.`
            )
          }}
        </p>
        <p class="small" role="status">
          <EffectList v-if="effects?.length" :effects="effects" />
          <template v-else-if="effects">It changes no figure of the route.</template>
        </p>
      </template>
    </template>
    <form v-if="writing" @submit.prevent="send" @keydown.esc.stop="writing = undefined">
      <v-text-field
        v-model="words"
        :label="writing === 'why' ? 'why' : 'why not (if you like)'"
        maxlength="400"
        @vue:mounted="focusIn"
      />
      <v-btn type="submit" size="small" :disabled="busy">{{ writing === 'why' ? 'Keep' : 'Decline' }}</v-btn>
      <v-text-btn type="button" @click="writing = undefined">Cancel</v-text-btn>
    </form>
    <div v-else-if="waits && student.own" class="acts">
      <v-btn
        v-if="now?.is !== 'gone'"
        size="small"
        :disabled="busy"
        :aria-label="`Accept ${suggestion.number}: ${title}`"
        @click="accept"
        >Accept</v-btn
      >
      <v-text-btn :aria-label="`Decline ${suggestion.number}: ${title}`" @click="decline(null)"
        >Decline</v-text-btn
      >
      <v-text-btn :aria-label="`Decline ${suggestion.number} and say why`" @click="write('decline')"
        >Decline and say why</v-text-btn
      >
    </div>
    <div v-else-if="waits && suggestion.own" class="acts">
      <v-text-btn :aria-label="`Say why you suggest ${suggestion.number}`" @click="write('why')">{{
        suggestion.why ? 'Change why' : 'Say why'
      }}</v-text-btn>
      <v-text-btn
        :aria-label="`Take ${suggestion.number} back: ${title}`"
        @click="suggestionChanges.withdrawSuggestion(suggestion.id)"
        >Take it back</v-text-btn
      >
    </div>
  </article>
</template>

<style scoped>
.suggestion {
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}
.lit {
  background: color-mix(in srgb, var(--ember) 8%, transparent);
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
}
.state {
  margin-left: auto;
  color: var(--quiet);
}
.state.waits {
  color: var(--ember);
  font-weight: 700;
}
p {
  margin: 3px 0 0;
}
ul {
  margin: 3px 0 0;
  padding-left: 30px;
}
.said {
  color: var(--ink);
  overflow-wrap: anywhere;
}
.gone {
  color: var(--ember);
}
form,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-top: 5px;
}
form .v-input {
  flex: 1 1 180px;
}
</style>
