/** What Harrowmere College itself wants to be known, each where it is about something. */
import type { GuidanceSaid } from '#shared/catalog/guidanceRequests'

export const guidance: GuidanceSaid[] = [
  {
    ...{ about: 'program', key: 'ENVD', title: 'The field season', link: null },
    text: 'Two weeks between spring and summer go to the field season. Ask for a place before the end of January; boots are lent.'
  },
  {
    ...{ about: 'course', key: 'HYDR 332', title: 'In the flume', link: null },
    text: 'Groups of three keep the flume running. Come with the people you want to work with.'
  },
  {
    ...{ about: 'finding', key: 'hold', title: 'Holds', link: null },
    text: 'The office that placed a hold lifts it, most within an hour.'
  }
]
