<script setup lang="ts">
import { fullestMinute, LACK_WORDS, LACKS, runsText, type OpeningFigures } from '#shared/offices/openings'
import { instantText, timeLeft } from '#shared/when'
import { count } from '#shared/words'

/** Openings of a term: when, for how many, who is not ready; each that is to come is moved in its place. */
const props = defineProps<{ openings: readonly OpeningFigures[] }>()
/** The opening of which it is looked at who is not ready. */
const looked = ref<number>()
const lookedAt = computed(() => props.openings.find((one) => one.id === looked.value))
const topText = ({ hour }: OpeningFigures) => {
  if (!hour?.runs.some(Boolean)) return ''
  return `at most ${runsText(fullestMinute(hour.runs).runs)} runs a minute${hour.isMeasured ? '' : ' expected'}`
}
const offices = useOffices()
const college = useCollege()
const clock = useClock()
const notice = useNotice()
const { busy, once } = useOnce()
const moving = ref<number>()
const typed = ref('')
const problem = ref('')

async function begin(one: OpeningFigures) {
  const { DateTime } = await import('luxon')
  typed.value = DateTime.fromMillis(one.opens, { zone: college.zone }).toFormat("yyyy-MM-dd'T'HH:mm")
  problem.value = ''
  moving.value = one.id
}
const move = (one: OpeningFigures) =>
  once(async () => {
    const { DateTime } = await import('luxon')
    const at = DateTime.fromISO(typed.value, { zone: college.zone })
    if (!at.isValid) {
      problem.value = 'Give a date and a time.'
      return false
    }
    try {
      const told = await offices.moveOpening(one.id, at.toMillis())
      notice.say(`${one.title}: moved. ${count(told, 'student')} told.`)
      moving.value = undefined
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      problem.value = error.message
      return false
    }
  })
const save = () =>
  saveTable(
    `openings-${props.openings[0]!.term}.csv`,
    props.openings.map((one) => ({
      Opening: one.title,
      'May register from': instantText(one.opens, college.zone),
      Students: one.students,
      'Not ready': one.unready,
      ...Object.fromEntries(LACKS.map((lack) => [LACK_WORDS[lack], one.lacks[lack]]))
    }))
  )
const lacksText = ({ lacks }: OpeningFigures) =>
  LACKS.filter((lack) => lacks[lack])
    .map((lack) => `${lacks[lack]} ${LACK_WORDS[lack]}`)
    .join(' · ')
const nudge = (one: OpeningFigures) =>
  once(async () => {
    try {
      const { told, already } = await offices.nudge(one.id)
      notice.say(
        `${count(told, 'student')} told what they lack.${already ? ` ${already} were told within a day.` : ''}`
      )
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      notice.say(error.message)
      return false
    }
  })
</script>

<template>
  <p><v-text-btn @click="save">Save as a table (CSV)</v-text-btn></p>
  <v-table>
    <thead>
      <tr>
        <th scope="col">Opens</th>
        <th scope="col">For whom</th>
        <th scope="col">Students</th>
        <th scope="col">Not ready</th>
        <th scope="col"><span class="visually-hidden">Move</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in openings" :key="one.id">
        <td v-if="moving === one.id" colspan="5">
          <form @submit.prevent="move(one)" @keydown.esc.stop="moving = undefined">
            <v-text-field
              v-model="typed"
              type="datetime-local"
              :label="`${one.title}: opens, campus time`"
              @vue:mounted="focusIn"
            />
            <v-btn type="submit" size="small" :disabled="busy">Move it</v-btn>
            <v-text-btn type="button" @click="moving = undefined">Cancel</v-text-btn>
            <span v-if="problem" class="stops" role="alert">{{ problem }}</span>
            <span v-else class="quiet">Everybody concerned is told.</span>
          </form>
        </td>
        <template v-else>
          <th scope="row">
            {{ instantText(one.opens, college.zone) }}
            <span class="quiet block">{{
              one.opens > clock.minute ? `in ${timeLeft(one.opens - clock.minute)}` : 'open'
            }}</span>
          </th>
          <td>{{ one.title }}</td>
          <td>{{ one.students }}<span v-if="topText(one)" class="quiet block">{{ topText(one) }}</span></td>
          <td :class="{ stops: one.opens <= clock.minute && one.unready }">
            <template v-if="one.unready"
              ><v-text-btn :aria-label="`Who of ${one.title} is not ready`" @click="looked = one.id">{{
                one.unready
              }}</v-text-btn>
              <span class="quiet block">{{ lacksText(one) }}</span></template
            ><template v-else>–</template>
          </td>
          <td class="acts">
            <v-text-btn
              v-if="one.unready"
              :disabled="busy"
              :aria-label="`Nudge those of ${one.title} who are not ready`"
              @click="nudge(one)"
              >Nudge {{ one.unready }}</v-text-btn
            >
            <v-text-btn
              v-if="one.opens > clock.minute"
              :aria-label="`Move the opening ${one.title}`"
              @click="begin(one)"
              >Move</v-text-btn
            >
          </td>
        </template>
      </tr>
    </tbody>
  </v-table>
  <UnreadyPanel v-if="lookedAt" :opening="lookedAt" @close="looked = undefined" />
</template>

<style scoped>
.block {
  display: block;
}
.acts {
  white-space: nowrap;
}
.acts > * + * {
  margin-left: 12px;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
}
form .v-input {
  flex: 0 1 320px;
}
</style>
