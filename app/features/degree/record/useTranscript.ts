import { transcriptOf } from '#shared/record/transcript'

/** The transcript of the student on screen, as they take it along. */
export function useTranscript() {
  const student = useStudent()
  const college = useCollege()
  const clock = useClock()

  const transcript = computed(() =>
    transcriptOf({
      student: student.view!,
      reading: student.reading!,
      catalogContext: college.catalogContext!,
      now: clock.minute,
      institution: college.name,
      isOfficial: false
    })
  )
  const save = () =>
    saveFile(
      `transcript-${student.view!.student.number}-${college.today}.json`,
      `${JSON.stringify(transcript.value, null, 2)}\n`,
      'application/json'
    )
  const saveCsv = () =>
    saveTable(
      `transcript-${student.view!.student.number}-${college.today}.csv`,
      transcript.value.terms.flatMap(({ name, courses }) =>
        courses.map(({ course, title, credits, grade, origin, remark }) => ({
          Term: name,
          Course: course,
          Title: title,
          Credits: credits,
          Grade: grade ?? '',
          Origin: origin,
          Remark: remark ?? ''
        }))
      )
    )
  return { transcript, save, saveCsv }
}
