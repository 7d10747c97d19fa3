/** What holds offices of the demo place. */
export const holdKinds = [
  {
    title: 'Library fine',
    office: 'Library desk',
    howToLift:
      'Pay it at the library desk in Fern House, or by card on the library page. The hold is lifted within the hour.',
    stopsRegistration: true,
    stopsTranscript: true,
    takesAmount: true
  },
  {
    title: 'Unpaid parking fine',
    office: 'Campus safety',
    howToLift: 'Pay at the Slate desk or online; lifted the same day.',
    stopsRegistration: false,
    stopsTranscript: true,
    takesAmount: true
  },
  {
    title: 'Immunization record missing',
    office: 'Health service',
    howToLift: 'Bring or send your record to the health service; it is looked at within two days.',
    stopsRegistration: true,
    stopsTranscript: false,
    takesAmount: false
  },
  {
    title: 'Address not confirmed',
    office: 'Registrar',
    howToLift: 'Confirm your address at the registrar’s desk.',
    stopsRegistration: false,
    stopsTranscript: false,
    takesAmount: false
  }
]
