/** How the answers are arrived at, in the words of `docs/answers.md`. */

/** What answers are asked over, how they are compared, and what is proved of them; docs/answers.md says it in full. */
export const HOW_ANSWERED = {
  reading: {
    title: 'How this is read',
    over: 'Of all ways to count courses, attempts and branches this is the best one. Ways are compared by these numbers in turn; the first that differs decides, and fewer is better:',
    order: [
      'needs that no course left could complete',
      'needs open with everything on the record and the route; then free choice that is not full',
      'needs open without what is planned, without what is registered, by what is earned alone',
      'conditions on what counts that are not met',
      'credits in needs beyond what they ask',
      'then the order in which the program names branches and needs'
    ],
    proved:
      'It is proved that no way is better, unless the page says otherwise. When courses are offered, and what a term holds, is looked at when the route is filled.'
  },
  finish: {
    title: 'What is proved',
    over: 'Every course left, every branch, every term open to planning and every way to count is looked at. In order:',
    order: [
      'everything needed is met, and the last term is the earliest there is',
      'then the fewest terms with too many hours of study or too few credits',
      'then the courses that suit best',
      'then what others wait for early, and loads that are even'
    ],
    proved:
      '“No way is earlier” is proved: for each earlier term it was shown that nothing completes the degree by it. The rest is proved too, each in its turn, unless it says what was not settled: no fewer such terms, no courses that suit better by more than two in a hundred, no better laying of them by more than one in a thousand. Conditions such as averages are left out.'
  },
  weeks: {
    title: 'How weeks are compared',
    over: 'One option of each course, full sections among them unless seats are asked for. No two classes share a minute of a date. Weeks are compared by the wishes in turn; the first that differs decides.',
    order: [
      'a weekday counts as it is on its worst date, so what the halves of a term have does not add up',
      'a class on a single Saturday makes Saturday a day with classes'
    ],
    proved:
      '“Proved” means that no week is better than the last one shown, and that all better ones are shown.'
  }
} as const
