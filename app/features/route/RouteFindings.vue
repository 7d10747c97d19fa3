<script setup lang="ts">
import type { Finding } from '#core/findings'
import { countedOn } from '#core/route'
import { leavesText } from '#shared/catalog/texts'
import { waivedOf } from '#shared/record/studentFacts'
import { changeText, findingSubject, findingText } from '#shared/route/texts'
import { count } from '#shared/words'

/** What the checks say of the route, each with its ways out. */
const emit = defineEmits<{ fill: [] }>()
const student = useStudent()
const routeChanges = useRouteChanges()
const college = useCollege()
const filling = useFilling()
const talk = useTalk()
/** How a finding is named in the talk; it stays the same while the finding does. */
const keyOf = (finding: Finding) => findingSubject(finding, college.shortTerm).slice(0, 80)
const { findings } = useRouteBoard()
const waived = computed(() => [...waivedOf(student.view!)])
/** What the route counts on, of what is under way. */
const relied = computed(() => (student.reading ? countedOn(student.reading.context) : []))
</script>

<template>
  <section class="card" aria-labelledby="findings-title">
    <h2 id="findings-title">
      {{ findings.length ? count(findings.length, 'finding') : 'No findings' }}
    </h2>
    <p v-if="!findings.length" class="quiet">
      {{
        student.view!.route.courses.length
          ? 'Every planned course may stand where it stands.'
          : 'There is nothing to check yet.'
      }}
    </p>
    <div
      v-for="finding in findings"
      :key="`${finding.code} ${findingSubject(finding, college.shortTerm)}`"
      class="finding"
    >
      <p>
        <span class="flag" aria-hidden="true" />
        <strong class="stops">{{ findingSubject(finding, college.shortTerm) }}</strong>
        {{ student.say(findingText(finding, college.shortTerm)) }}
      </p>
      <div class="ways">
        <!-- While a proposal is looked at, ways would be of a route that is not there yet. -->
        <template v-if="student.mayEditRoute && !filling.proposal">
          <v-btn
            v-for="way in finding.ways"
            :key="changeText(way, college.shortTerm)"
            size="small"
            @click="routeChanges.changeRoute(way)"
            >{{ changeText(way, college.shortTerm) }}</v-btn
          >
        </template>
        <v-btn v-if="finding.code === 'needLeft' && student.mayEditRoute" size="small" @click="emit('fill')"
          >Fill the rest</v-btn
        >
        <v-btn
          v-if="finding.code === 'late' && student.own"
          size="small"
          @click="routeChanges.changeCarry({ ...student.view!.carry, target: finding.term })"
          >Finish in {{ college.shortTerm(finding.term) }} instead</v-btn
        >
        <v-text-btn v-if="talk.mayTalk" @click="talk.begin({ is: 'finding', key: keyOf(finding) })"
          >Speak of it</v-text-btn
        >
        <TalkPins is="finding" :about="[keyOf(finding)]" />
        <RequestAsk
          v-if="finding.code === 'prerequisite'"
          :said="{ kind: 'waiver', course: finding.course }"
        />
      </div>
    </div>
    <GuidanceNotes about="finding" :keys="findings.map((one) => one.code)" />
    <div v-for="course in waived" :key="course" class="finding">
      The prerequisite of <strong>{{ course }}</strong> is waived:
      <RequestAsk :said="{ kind: 'waiver', course }" />
    </div>
    <p v-if="relied.length" class="quiet">
      Grades under way are assumed:
      <template v-for="({ leaf, courses }, i) in relied" :key="i"
        >{{ i ? '; ' : '' }}{{ leavesText([leaf]) }} for {{ courses.join(', ') }}</template
      >.
    </p>
  </section>
</template>

<style scoped>
.finding {
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.flag {
  display: inline-block;
  border: 6px solid var(--rowan);
  border-left-color: transparent;
  border-bottom-color: transparent;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
p {
  margin: 0 0 4px;
}
</style>
