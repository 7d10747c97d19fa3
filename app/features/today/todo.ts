import { nothingToDo, thingsToDo } from '#shared/today/todo'
import type { Todo, TodoQuestion } from '#shared/today/task'

const LOOK = {
  degree: 'See the degree',
  route: 'See the route',
  week: 'See the week',
  register: 'See the run sheet',
  'degree/record': 'See the record'
} as const

/** What to do next, as of the campus time; the minute matters to it, the second does not. */
export const useTodo = defineStore('todo', () => {
  const student = useStudent()
  const college = useCollege()
  const clock = useClock()

  const question = computed((): TodoQuestion | undefined => {
    const { view, reading, work } = student
    const { catalogContext } = college
    // Not before what has passed: the day and the deadlines are those of the reading.
    return view && reading && catalogContext
      ? { studentRecord: view, reading, catalogContext, work, now: Math.max(clock.minute, reading.now) }
      : undefined
  })
  const list = computed((): Todo[] => (question.value ? thingsToDo(question.value).map(asRead) : []))
  const nothing = computed(() => (question.value ? student.say(nothingToDo(question.value)) : ''))
  /** To others it speaks of the student, and leads where they can look; what only the student does is no button. */
  function asRead({ action, ...thing }: Todo): Todo {
    if (student.own) return { ...thing, ...(action && { action }) }
    const there = action && action.to !== '#program' && { label: LOOK[action.to], to: action.to }
    return {
      ...thing,
      title: student.say(thing.title),
      text: student.say(thing.text),
      when: student.say(thing.when),
      ...(there && { action: there })
    }
  }
  return { list, nothing }
})
