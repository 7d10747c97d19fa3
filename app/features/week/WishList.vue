<script setup lang="ts">
import { useFileDialog } from '@vueuse/core'
import type { Wish } from '#core/find'
import { WEEKDAYS, minutes, type Weekday } from '#core/time'
import type { Mode, Section } from '#core/week'
import type { SharedWeek } from '#shared/week/responses'
import { LONG_DAY_NAMES, timeField } from '#shared/when'
import { sectionsNamedIn } from '#shared/week/finding'
import { count, MODE_WORDS } from '#shared/words'
import { wishText } from '#shared/week/texts'

/** Wishes in order: a higher one always wins. Dragged, moved by keyboard, changed in place. */
const props = defineProps<{ wishes: readonly Wish[]; sections: readonly Section[]; disabled: boolean }>()
const emit = defineEmits<{ change: [wishes: Wish[]] }>()

const list = ref<HTMLElement>()
const { shown, lifted, step } = useArranging<Wish>(list, {
  things: () => props.wishes,
  isFixed: () => props.disabled,
  change: (next) => emit('change', next),
  atOnce: true
})
const put = (i: number, wish: Wish) =>
  emit(
    'change',
    props.wishes.map((one, at) => (at === i ? wish : one))
  )
const drop = (i: number) =>
  emit(
    'change',
    props.wishes.filter((_, at) => at !== i)
  )

const instructors = computed(() =>
  [...new Set(props.sections.flatMap((one) => one.instructors))].sort((a, b) => a.localeCompare(b, 'en'))
)
const NEW: { title: string; wish: () => Wish }[] = [
  { title: 'Few days with classes', wish: () => ({ kind: 'fewestDays' }) },
  { title: 'A day off', wish: () => ({ kind: 'dayOff', day: 5 }) },
  { title: 'Start no earlier than', wish: () => ({ kind: 'startsAfter', time: 9 * 60 + 30 }) },
  { title: 'End no later than', wish: () => ({ kind: 'endsBefore', time: 16 * 60 }) },
  { title: 'Few hours between classes', wish: () => ({ kind: 'fewestHoursBetween' }) },
  {
    title: 'Lunch free',
    wish: () => ({ kind: 'lunchFree', from: 11 * 60 + 30, to: 14 * 60, minutes: 45 })
  },
  { title: 'Even load over the days', wish: () => ({ kind: 'evenDays' }) },
  { title: 'One campus a day', wish: () => ({ kind: 'oneCampusADay' }) },
  { title: 'In person or online', wish: () => ({ kind: 'mode', modes: ['inPerson', 'mixed'] }) },
  {
    title: 'Certain instructors',
    wish: () => ({ kind: 'instructors', names: instructors.value.slice(0, 1) })
  },
  { title: 'Seats not at risk', wish: () => ({ kind: 'seatsSafe' }) },
  { title: 'Hours kept free if possible', wish: () => ({ kind: 'keptIfPossible' }) },
  { title: 'Together with a friend', wish: () => ({ kind: 'together', sections: [] }) }
]
const add = (title: string) => {
  const found = NEW.find((one) => one.title === title)
  if (found) emit('change', [...props.wishes, found.wish()])
}

const timeOf = (event: Event) => {
  const { value } = event.target as HTMLInputElement
  return value ? minutes(value) : undefined
}
const putTime = (i: number, wish: Extract<Wish, { time: number }>, event: Event) => {
  const time = timeOf(event)
  if (time !== undefined) put(i, { ...wish, time })
}
const MODES = Object.entries(MODE_WORDS) as [Mode, string][]
function turned<T>(all: readonly T[], one: T, on: boolean): T[] {
  return on ? [...all, one] : all.filter((other) => other !== one)
}
function turnMode(i: number, wish: Extract<Wish, { kind: 'mode' }>, mode: Mode, on: boolean) {
  const modes = turned(wish.modes, mode, on)
  if (modes.length) put(i, { ...wish, modes })
}

/** The week of a friend, by the link they sent. */
const friend = ref('')
const friendSays = ref('')
function takeCodes(i: number, text: string, otherwise: string) {
  const codes = sectionsNamedIn(text, props.sections)
  if (codes.length) put(i, { kind: 'together', sections: codes })
  friendSays.value = codes.length ? `${count(codes.length, 'section')} of your courses` : otherwise
}
const files = useFileDialog({ accept: '.ics,.csv,.txt', multiple: false, reset: true })
let friendOf = 0
function openFriend(i: number) {
  friendOf = i
  files.open()
}
files.onChange((chosen) => void (chosen?.[0] && readFriendFile(friendOf, chosen[0])))
async function readFriendFile(i: number, file: File) {
  takeCodes(i, await file.text(), `${file.name} names no section of your courses.`)
}
async function readFriend(i: number) {
  const key = /[0-9a-f]{32}/.exec(friend.value)?.[0]
  if (!key) {
    takeCodes(i, friend.value, 'Paste the link or the section codes that your friend sent.')
    return
  }
  try {
    const week = await api<SharedWeek>(`/api/shared/${key}`)
    put(i, { kind: 'together', sections: week.sections.map((one) => one.code) })
    friendSays.value = `“${week.name}”, ${week.termName}`
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    friendSays.value = error.message
  }
}
</script>

<template>
  <ol ref="list" class="wishes">
    <li
      v-for="(wish, i) in shown"
      :key="`${wish.kind} ${i}`"
      :data-place="i"
      :class="{ lifted: lifted === i }"
    >
      <div class="line">
        <v-bare-btn
          class="grip"
          :disabled="disabled"
          :aria-label="`Wish ${i + 1}: ${wishText(wish)}. Arrow up and down move it.`"
          @keydown.up.prevent="step(i, -1)"
          @keydown.down.prevent="step(i, 1)"
        >
          <strong>{{ i + 1 }}</strong>
        </v-bare-btn>
        <span class="text">{{ wishText(wish) }}</span>
        <v-bare-btn v-if="!disabled" class="drop" :aria-label="`Drop: ${wishText(wish)}`" @click="drop(i)">
          <span aria-hidden="true">×</span>
        </v-bare-btn>
      </div>
      <div v-if="!disabled" class="detail">
        <v-select
          v-if="wish.kind === 'dayOff'"
          aria-label="Day off"
          :model-value="wish.day"
          :items="WEEKDAYS"
          :item-title="(day) => LONG_DAY_NAMES[day as Weekday]"
          @update:model-value="put(i, { ...wish, day: $event as Weekday })"
        />
        <v-text-field
          v-else-if="wish.kind === 'startsAfter' || wish.kind === 'endsBefore'"
          type="time"
          step="900"
          :aria-label="wish.kind === 'startsAfter' ? 'First class no earlier than' : 'Last class over by'"
          :model-value="timeField(wish.time)"
          @change="putTime(i, wish, $event)"
        />
        <template v-else-if="wish.kind === 'lunchFree'">
          <v-text-field
            type="time"
            step="900"
            aria-label="Lunch from"
            :model-value="timeField(wish.from)"
            @change="put(i, { ...wish, from: timeOf($event) ?? wish.from })"
          />
          <v-text-field
            type="time"
            step="900"
            aria-label="Lunch until"
            :model-value="timeField(wish.to)"
            @change="put(i, { ...wish, to: timeOf($event) ?? wish.to })"
          />
        </template>
        <template v-else-if="wish.kind === 'mode'">
          <label v-for="[mode, title] in MODES" :key="mode"
            ><v-checkbox-btn
              :model-value="wish.modes.includes(mode)"
              @update:model-value="turnMode(i, wish, mode, $event)"
            />
            {{ title }}</label
          >
        </template>
        <details v-else-if="wish.kind === 'instructors'" class="names">
          <summary class="small">choose among {{ instructors.length }}</summary>
          <FilterChoices
            :model-value="wish.names"
            :choices="instructors.map((name) => ({ value: name, title: name }))"
            @update:model-value="$event && put(i, { ...wish, names: [...$event] })"
          />
        </details>
        <form v-else-if="wish.kind === 'together'" @submit.prevent="readFriend(i)">
          <v-text-field
            v-model="friend"
            aria-label="Link of a friend's week, or its section codes"
            placeholder="their link or codes"
          />
          <v-text-btn type="submit">Read it</v-text-btn>
          <v-text-btn @click="openFriend(i)">or their file</v-text-btn>
          <span class="small" role="status">{{ friendSays }}</span>
        </form>
      </div>
    </li>
  </ol>
  <label v-if="!disabled" class="add">
    <span class="visually-hidden">Add a wish</span>
    <v-select
      model-value="Add a wish"
      :items="['Add a wish', ...NEW.map((one) => one.title)]"
      aria-label="Add a wish"
      @update:model-value="add($event as string)"
    />
  </label>
</template>

<style scoped>
.wishes {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}
li {
  border: 1px dashed var(--quiet);
  border-radius: 8px;
  padding: 4px 8px;
  margin-bottom: 6px;
  background: var(--card);
  cursor: grab;
}
li.lifted {
  border-style: solid;
  border-color: var(--dusk);
  background: var(--dusk-tint);
}
.line {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.grip {
  cursor: grab;
  padding: 0 4px;
}
.text {
  flex: 1;
}
.drop {
  font-size: 16px;
  line-height: 1;
  padding: 2px 4px;
  color: var(--quiet);
}
.detail {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 10px;
  padding-left: 24px;
}
.detail:not(:empty) {
  padding-top: 3px;
}
.detail form {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 12px;
}
.names {
  flex: 1;
}
.names[open] > :deep(fieldset) {
  max-height: 190px;
  overflow-y: auto;
}
.file:focus-within {
  outline: 2px solid var(--dusk);
}
.add .v-input {
  width: 100%;
}
</style>
