/** The institution's own short texts, each shown where it is about something. */

export const GUIDANCE_ABOUT = ['everybody', 'program', 'term', 'course', 'finding'] as const
export type GuidanceAbout = (typeof GUIDANCE_ABOUT)[number]

export interface GuidanceText {
  id: number
  about: GuidanceAbout
  /** The code of what it is about; empty where it is for everybody. */
  key: string
  title: string
  text: string
  /** Where more is to be read. */
  link: string | null
}

/** The texts about any of these, in the order in which they were written. */
export const guidanceOn = (
  all: readonly GuidanceText[],
  about: GuidanceAbout,
  keys: readonly string[] = ['']
): GuidanceText[] => all.filter((one) => one.about === about && keys.includes(one.key))
