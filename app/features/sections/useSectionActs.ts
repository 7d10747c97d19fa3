import { inTheWay } from '#core/search'
import type { Course } from '#core/catalog'
import { GENERAL_REFUSALS } from '#core/registration'
import type { Refusal } from '#core/findings'
import { fallsIn } from '#core/find'
import { clashesWith, sectionsOf, seatsLeft, type Holidays, type Option, type Section } from '#core/week'
import type { TermView } from '#shared/catalog/responses'
import { FIRST_DRAFT } from '#shared/reading'
import { refusalText } from '#shared/registration/texts'
import type { KeepFree } from '#shared/week/responses'
import { clashText, sectionName } from '#shared/week/texts'

/** A section with the options that its parts make, and what the decision says of it. */
export interface ActedSection {
  main: Section
  course: Course
  options: readonly Option[]
  refusals: readonly Refusal[]
  /** It clashes with nothing of the week, and keeps the hours free that have to be. */
  fits: boolean
}

/** Whether an option clashes with nothing of a week, and leaves the hours free that have to be. */
export function fitsInto(
  option: Option,
  { week, hard, holidays }: { week: readonly Section[]; hard: readonly KeepFree[]; holidays: Holidays }
): boolean {
  const sections = sectionsOf(option)
  return (
    !clashesWith({ course: option.course, sections }, week, holidays).length &&
    hard.every((hours) => !fallsIn(option, hours, holidays))
  )
}

/** How a section that was found goes with the week. */
function useSectionsInWeek(isComing: Ref<boolean>) {
  const student = useStudent()
  const college = useCollege()
  const standing = useStanding()
  const weeks = useWeeks()
  const inDraft = ({ main }: ActedSection) => weeks.picked.some((one) => one.code === main.code)
  /** The choice of its parts that fits best: without a clash, then with seats. */
  function choiceOf({ options, course }: ActedSection): Option | undefined {
    const week = weeks.all
    const rank = (option: Option) =>
      clashesWith({ course: course.code, sections: sectionsOf(option) }, week, standing.holidays).length * 2 +
      Number(seatsLeft(option) <= 0)
    return options.length ? options.reduce((a, b) => (rank(b) < rank(a) ? b : a)) : undefined
  }
  /** The one thing in the way, or what it would clash with. */
  function against(section: ActedSection): string | undefined {
    if (section.main.officeOnly) return 'only an office places students in it'
    const refusal = inTheWay(section.refusals.filter((one) => one.code !== 'clash' && one.code !== 'full'))
    if (refusal) return student.say(refusalText(refusal, college.zone))
    if (section.fits || !isComing.value || !section.options.length || inDraft(section)) return undefined
    const option = choiceOf(section)!
    const [clash] = clashesWith(
      { course: section.course.code, sections: sectionsOf(option) },
      weeks.all,
      standing.holidays
    )
    return clash ? clashText(clash) : student.say('in hours that you keep free')
  }
  return { inDraft, choiceOf, against }
}

/** What may be done at once with a section of a term that was found: picked, registered, and what is against it. */
export function useSectionActs(term: Ref<TermView | undefined>) {
  const student = useStudent()
  const standing = useStanding()
  const weeks = useWeeks()
  const notice = useNotice()
  const runFromHere = useRunFromElsewhere()

  const isComing = computed(() => term.value?.code === standing.term?.code)
  const { inDraft, choiceOf, against } = useSectionsInWeek(isComing)
  const isHeld = ({ main }: ActedSection) => standing.heldSections.some((one) => one.code === main.code)
  const isPlaced = ({ main }: ActedSection) =>
    standing.held.some((one) => one.course === main.course && one.placedByOffice)
  const mayPick = (section: ActedSection) =>
    student.own &&
    isComing.value &&
    !standing.closedWhy &&
    !section.main.officeOnly &&
    section.options.length > 0 &&
    !isPlaced(section)
  /** It is registered at once, as long as nothing but the press is missing. */
  const mayRegister = (section: ActedSection) =>
    standing.work?.adding === 'open' &&
    mayPick(section) &&
    !against(section) &&
    !section.refusals.some(({ code }) => GENERAL_REFUSALS.has(code)) &&
    !standing.heldCourses.has(section.main.course) &&
    seatsLeft(choiceOf(section)!) > 0 &&
    weeks.draft?.goingWith !== false
  async function register(section: ActedSection) {
    const option = choiceOf(section)!
    const { course } = section.main
    if (inDraft(section) || (await weeks.pick([{ course, option }]))) await runFromHere({ courses: [course] })
  }
  async function pick(section: ActedSection) {
    const option = choiceOf(section)
    if (!option) return
    const there = inDraft(section)
    if (!(await weeks.pick([{ course: section.main.course, option: there ? undefined : option }]))) return
    const { course } = section.main
    const draft = weeks.draft?.name ?? FIRST_DRAFT
    if (there) notice.say(`${course} has no section in “${draft}” any more.`)
    else
      notice.say(
        standing.heldCourses.has(course)
          ? `${sectionName(section.main)} is picked instead of your seat, which you hold until it is registered.`
          : `${sectionName(section.main)} is in “${draft}”.`,
        {
          title: 'Undo',
          act: () => weeks.pick([{ course, option: undefined }]),
          holds: weeks.untilPicked()
        }
      )
  }
  return { inDraft, isHeld, mayPick, mayRegister, pick, register, against }
}
