import type { IsoDate } from '#core/time'
import { isActive, type AppointmentView } from '#shared/appointments/appointments'
import { campusDate, campusMinute, clockTime } from '#shared/when'

/** The student's appointments on a day, as they stand beside classes. */
export function useAppointmentsOn(): (date: IsoDate) => (AppointmentView & { time: string })[] {
  const student = useStudent()
  const college = useCollege()
  return (date) =>
    (student.view?.appointments ?? [])
      .filter((one) => isActive(one) && campusDate(one.startsAt, college.zone) === date)
      .map((one) => ({ ...one, time: clockTime(campusMinute(one.startsAt, college.zone)) }))
}
