/** How to read each place of a student, and what people ask there. */

export type HelpPlace = 'degree' | 'route' | 'week' | 'register'

/** Signs that can be drawn beside their words, and those that are words themselves. */
export type SignForm =
  | 'earned'
  | 'underWay'
  | 'registered'
  | 'picked'
  | 'planned'
  | 'needed'
  | 'waitlisted'
  | 'corner'

export interface Sign {
  sign: { form: SignForm } | { text: string }
  means: string
}

export interface PlaceHelp {
  title: string
  signs: readonly Sign[]
  questions: readonly { question: string; answer: string }[]
}

const form = (shape: SignForm, means: string): Sign => ({ sign: { form: shape }, means })
const text = (shown: string, means: string): Sign => ({ sign: { text: shown }, means })

const FORMS = [
  form('earned', 'completed; the grade stands beside it'),
  form('underWay', 'in progress; the bar along the foot shows how far the term has run'),
  form('registered', 'registered: you hold the seat'),
  form('picked', 'a section is picked, no seat is held'),
  form('planned', 'planned for a term')
]
const COLOURS = text('colour', 'the area of your degree for which a course counts, the same on every screen')

export const HELP: Record<HelpPlace, PlaceHelp> = {
  degree: {
    title: 'Degree',
    signs: [
      COLOURS,
      ...FORMS,
      form('needed', 'nothing is chosen yet; open it to see which courses fit'),
      form('waitlisted', 'you are in line for a seat'),
      text('15 mapped', 'credits that courses on your route will meet, if they go as planned'),
      text('4 needed', 'credits for which no course is on your route yet'),
      text('outside the degree', 'credits of courses that count for nothing in your programs')
    ],
    questions: [
      {
        question: 'Why does a course count where it counts?',
        answer:
          'Courses are placed so that as much of your degree as possible is met. Open a course to see why it stands where it does, and what moving it would cost.'
      },
      {
        question: 'A requirement is wrong for me. What can I do?',
        answer:
          'Your program advisor or the registrar can grant an exception in place. Ask your program advisor; what is granted stands at the requirement, with who and when.'
      },
      {
        question: 'What does the earliest finish rest on?',
        answer:
          'On prerequisites, on when courses are offered and on your own limits. “Why” beside it names the chain of courses that makes it so.'
      }
    ]
  },
  route: {
    title: 'Route',
    signs: [
      text('rows', 'areas of your degree; read across to see how a requirement is met'),
      text('columns', 'terms; read down to see what a term asks of you'),
      ...FORMS,
      form('needed', 'still needed; drag it onto a term, or open it'),
      form('corner', 'a finding: something is in the way of this course; it is told at the foot'),
      text('14+4 / 36', 'credits of an area: 14 earned, 4 under way or registered, of 36 asked for'),
      text('mapped', 'all that is left of an area is on the route'),
      text(
        'numbered leaf',
        'a suggestion of an advisor: an outline where a course would come, an arrow from where it stands, struck where it would go'
      ),
      text('no slack', 'moved to a later term, this course would make you finish later'),
      text('hatched', 'a course that is lifted may not go there; the reason stands in the cell')
    ],
    questions: [
      {
        question: 'How do I move a course?',
        answer:
          'Drag it; or focus it, press space, choose a term with the arrow keys, and press space again. Its menu does the same. Ctrl+Z takes a change back, also after a reload.'
      },
      {
        question: 'What does “Fill the rest” do?',
        answer:
          'It proposes courses and terms for everything that is still needed. What is on your route stays where it is, and nothing changes until you take the proposal.'
      },
      {
        question: 'What happens when I accept a suggestion?',
        answer:
          'The change is made on your route as one of your own, which you can undo. If you have moved the course since, it is taken from where it stands now.'
      },
      {
        question: 'Does my advisor see every route?',
        answer:
          'Your advisors see your routes. Nobody else changes one, unless you open it to your program advisor under “Routes”.'
      }
    ]
  },
  week: {
    title: 'Week',
    signs: [
      text(
        'rows',
        'days; the hours run across. Upper half of a row: first half of the term; lower half: second half'
      ),
      form('registered', 'a seat you hold'),
      form('picked', 'a section you have picked; it holds no seat until you register'),
      text('small week', 'an option drawn as the week above, on the same scale'),
      text('stripes', 'full, with a line; struck through where the line is full too'),
      text('9 of 30 left', 'seats for you now; seats kept for others are not counted'),
      text('hatched hours', 'hours you keep free')
    ],
    questions: [
      {
        question: 'What is a draft week?',
        answer:
          'One set of picked sections. You may keep several; the one you are “going with” is what Register will use.'
      },
      {
        question: 'Does a pick hold a seat?',
        answer: 'No. A seat is yours once Register has registered it.'
      },
      {
        question: 'How do I change a section that I hold?',
        answer:
          'Choose “Exchange it”, and pick another section. You keep your seat until the other one is yours.'
      }
    ]
  },
  register: {
    title: 'Register',
    signs: [
      text(
        'run sheet',
        'the courses that will be registered, each with what the checks say as of your opening'
      ),
      text('ready', 'nothing stands in its way as far as is known now'),
      text('unsettled', 'no section is picked'),
      text('9 of 30 left', 'seats as they are now; others may take them first'),
      text('in line', 'a place in the line of a full section; it is not a seat'),
      text('1. stand in line', 'what is tried, in order, where a line does not go through'),
      text('the term line', 'from your opening to the last drop: what may be done until when'),
      text(
        'if you leave it like this',
        'what the run comes to, also if sections with few seats left are gone by then'
      ),
      text('owed', 'what is charged for the seats held, less what was paid'),
      text('receipt', 'what a run did, line by line; it is kept for good')
    ],
    questions: [
      {
        question: 'What happens when I press Register?',
        answer:
          'Each course is tried by itself, and courses that have to be taken together are tried together. What fails leaves the rest as it is.'
      },
      {
        question: 'What if the connection is lost while it registers?',
        answer:
          'The page asks for the same run again until its receipt is there, also after a reload. No course is registered twice, and the receipt says what is held.'
      },
      {
        question: 'A section is full. What can I do?',
        answer:
          'Name other sections, another course or a place in line as fallbacks. A seat that is freed is kept for the line and offered to the first who may take it; Today and Register tell you, with a clock.'
      },
      {
        question: 'What does dropping a course do?',
        answer:
          'The seat is given back at once and cannot be called back. Before you drop, it says what happens to your credits, your record and the line. To change a section, exchange it instead.'
      },
      {
        question: 'What does it cost, and what if I do not pay?',
        answer:
          'Register says what is owed and until when, and what a drop would give back. What is unpaid is told twice; then the seats are given back on the day that was named, and go to those who wait.'
      },
      {
        question: 'I am in another tab when it opens. Is that a disadvantage?',
        answer:
          'The page counts down to your opening and opens by itself. Where the term allows it, you can also leave the run sheet to run by itself at the opening; what came of it is mailed to you.'
      },
      {
        question: 'Who can lift a hold?',
        answer: 'The office that set it. How to lift it stands beside the hold.'
      }
    ]
  }
}
