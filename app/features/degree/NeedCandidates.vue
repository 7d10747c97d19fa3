<script setup lang="ts">
import type { Course } from '#core/catalog'
import { candidatesFor, type NeedResult, type PlannedCourse } from '#core/degree'
import { candidateQuestion } from '#shared/degree/candidateQuestion'
import { ruleText } from '#shared/catalog/texts'

/** The courses that could meet a need, those running in the chosen term first, each onto the route in one action. */
const props = defineProps<{
  result: NeedResult
  at?: string | undefined
  /** Planned for it now, and to be replaced. */
  instead?: PlannedCourse | undefined
}>()
const emit = defineEmits<{ adding: []; added: [] }>()
const student = useStudent()
const college = useCollege()
const panel = useCoursePanel()
const SOME = 10
const all = ref(false)
const code = ref<string>(props.at ?? student.planning?.code ?? '')

const { terms, put } = usePlacing()
const term = computed(() => terms.value.find((t) => t.code === code.value))
const found = computed(() =>
  student.reading && college.catalogContext && term.value
    ? candidatesFor(props.result, candidateQuestion(student.reading, college.catalogContext, term.value))
    : { list: [], leftOut: 0 }
)
const list = computed(() => found.value.list)

async function add(course: Course) {
  // The button goes with the course that is added; whoever shows this keeps the focus.
  emit('adding')
  if (await put([course], code.value, props.instead)) emit('added')
}
</script>

<template>
  <div class="candidates">
    <label class="small quiet">
      Term
      <v-select v-model="code" :items="terms" item-value="code" item-title="name" />
      {{ list.filter((c) => c.runs).length }} of {{ list.length }} run then{{
        found.leftOut ? `; ${found.leftOut} that fit are done or on the route already` : ''
      }}
    </label>
    <ul>
      <li v-for="c in all ? list : list.slice(0, SOME)" :key="c.course.code" :class="{ idle: !c.runs }">
        <v-bare-btn class="code" @click="panel.open(c.course.code)">
          <strong>{{ c.course.code }}</strong> {{ c.course.title }}
        </v-bare-btn>
        <span class="quiet"
          >{{ c.course.credits }} cr{{ c.missing ? ` · needs ${ruleText(c.missing)} before it` : ''
          }}{{ c.alsoMeets.length ? ` · also ${c.alsoMeets.join(', ')}` : ''
          }}{{ c.orMeets.length ? ` · or for ${c.orMeets.join(', ')}` : '' }}</span
        >
        <span v-if="!c.runs" class="quiet end">does not run then</span>
        <v-btn
          v-else-if="student.mayEditRoute"
          class="end"
          size="small"
          :aria-label="`${instead ? 'Put' : 'Add'} ${c.course.code} ${instead ? 'in' : 'to'} ${term?.name}${instead ? ` instead of ${instead.course}` : ''}`"
          @click="add(c.course)"
        >
          {{ instead ? `Instead of ${instead.course}` : `Add to ${college.shortTerm(code)}` }}
        </v-btn>
      </li>
    </ul>
    <v-text-btn v-if="list.length > SOME && !all" @click="all = true">
      Show all {{ list.length }}
    </v-text-btn>
    <p v-if="!list.length">
      No course that fits is left.
      {{ student.own ? 'Ask your advisor about a substitution.' : 'A substitution may help.' }}
    </p>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 12px;
  align-items: center;
  padding: 4px 0;
  min-height: 36px;
  border-top: 1px solid var(--rule);
}
.code {
  text-align: left;
}
.code:hover {
  text-decoration: underline;
}
.end {
  grid-column: 2;
  grid-row: 1 / span 2;
}
.idle strong {
  font-weight: 400;
}
.v-input {
  margin: 0 8px 0 4px;
}
</style>
