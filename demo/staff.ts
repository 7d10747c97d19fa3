/** The people and offices that students talk with. */
export interface DemoAdvisor {
  name: string
  signIn: string
  role: 'programAdvisor' | 'supportAdvisor'
  kind: 'person' | 'office'
  office: string
  phone: string
  hours: string
  /** Hours that can be booked, on days of the week from Monday as 1. */
  offered?: { days: number[]; start: string; end: string; length: number; place: string }
  /** Programs whose students are theirs. */
  programs: string[]
  situation: string | null
}

export const advisors: DemoAdvisor[] = [
  {
    name: 'Orla Denholt',
    signIn: 'orla.denholt',
    role: 'programAdvisor',
    kind: 'person',
    office: 'Slate 118',
    phone: '555 0118',
    hours: 'Tuesday and Thursday 1 to 3 pm',
    offered: { days: [2, 4], start: '13:00', end: '15:00', length: 30, place: 'Slate 118' },
    programs: ['ENVD'],
    situation: 'Program advisor, BSc Environmental Data.'
  },
  {
    name: 'Casimir Boyle',
    signIn: 'casimir.boyle',
    role: 'programAdvisor',
    kind: 'person',
    office: 'Fern 3',
    phone: '555 0131',
    hours: 'Monday 10 am to 12',
    offered: { days: [1], start: '10:00', end: '12:00', length: 30, place: 'Fern 3' },
    programs: ['HERI'],
    situation: null
  },
  {
    name: 'Junia Prewett',
    signIn: 'junia.prewett',
    role: 'programAdvisor',
    kind: 'person',
    office: 'Harbour 20',
    phone: '555 0164',
    hours: 'Wednesday 5 to 7 pm',
    programs: ['GEOF'],
    situation: null
  },
  {
    name: 'Rhys Calder',
    signIn: 'rhys.calder',
    role: 'programAdvisor',
    kind: 'person',
    office: 'Slate 121',
    phone: '555 0119',
    hours: 'Friday 9 to 11 am',
    programs: [],
    situation: null
  },
  {
    name: 'Maud Sterling',
    signIn: 'maud.sterling',
    role: 'programAdvisor',
    kind: 'person',
    office: 'Fern 7',
    phone: '555 0137',
    hours: 'Tuesday 2 to 4 pm',
    programs: [],
    situation: null
  },
  {
    name: 'Ivo Lantern',
    signIn: 'ivo.lantern',
    role: 'programAdvisor',
    kind: 'person',
    office: 'Slate 125',
    phone: '555 0122',
    hours: 'Thursday 9 to 11 am',
    programs: [],
    situation: null
  },
  {
    name: 'Advising Office',
    signIn: 'advising.office',
    role: 'programAdvisor',
    kind: 'office',
    office: 'Larch House, ground floor',
    phone: '555 0100',
    hours: 'Monday to Friday 9 am to 4 pm',
    programs: ['ETHC', 'STAM'],
    situation: null
  },
  {
    name: 'Nell Fairweather',
    signIn: 'nell.fairweather',
    role: 'supportAdvisor',
    kind: 'person',
    office: 'Larch 9',
    phone: '555 0140',
    hours: 'by appointment',
    offered: { days: [3], start: '14:00', end: '16:15', length: 45, place: 'Larch 9, or by video' },
    programs: [],
    situation: 'Support advisor: reads and comments, does not sign off.'
  }
]

/** Who decides in the name of subjects, and the subjects of whose college they are. */
export const departments = [
  {
    name: 'Land and Water Studies',
    college: 'Land and Water',
    by: {
      name: 'Tamsin Orford',
      signIn: 'tamsin.orford',
      situation: 'Department of Land and Water Studies: its sections, and requests about them.'
    }
  }
]

/** Of those who teach, the ones who sign in; by name. */
export const teachers = [
  {
    name: 'Idris Brandvold',
    signIn: 'idris.brandvold',
    situation: 'Instructor of Environmental Data: who is in the sections, who is in line, requests.'
  }
]

export const registrar = {
  name: 'Edda Whitlock',
  signIn: 'edda.whitlock',
  situation: "Registrar's office: terms, openings and the campus clock."
}

/** An office that places holds, and nothing else. */
export const holdOffice = {
  name: 'Perrin Hale',
  signIn: 'perrin.hale',
  office: 'Library desk',
  situation: 'Library desk: places its own holds and lifts them.'
}

/** Which advisor takes a generated student: spread over those of a program. */
export const SHARED_BY: Record<string, string[]> = {
  ENVD: ['orla.denholt', 'rhys.calder', 'ivo.lantern'],
  HERI: ['casimir.boyle', 'maud.sterling'],
  GEOF: ['junia.prewett']
}

export const DEMO_PASSWORD = 'harrowmere'
