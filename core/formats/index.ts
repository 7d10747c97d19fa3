export { formatDayLetters, parseDayLetters } from './dayLetters'
export { checkCharacter, parseSectionCode, sectionCodeAt, type SectionCodeFault } from './sectionCode'
