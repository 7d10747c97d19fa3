import { describe, expect, it } from 'vitest'
import { settingsIn } from '#server/settings'

const SIGN_ON = {
  RIDGEWAY_ORIGIN: 'https://plan.harrowmere.example',
  RIDGEWAY_SIGN_ON: 'https://id.harrowmere.example'
}

describe('what the configuration says', () => {
  it('is usable when it says nothing', () => {
    expect(settingsIn({})).toMatchObject({
      isHttps: false,
      proxies: 0,
      log: 'warn',
      passwords: true,
      secondStep: 'nobody',
      demo: false
    })
    expect(settingsIn({}).signOn).toBeUndefined()
  })
  it('names the sign-on, its claims and which group has which role', () => {
    const { signOn } = settingsIn({
      ...SIGN_ON,
      RIDGEWAY_SIGN_ON_ROLES: 'registrar = records-office,programAdvisor=advisors'
    })
    expect(signOn).toMatchObject({
      client: 'ridgeway',
      nameClaim: 'preferred_username',
      groupsClaim: 'groups'
    })
    expect([...signOn!.roles]).toEqual([
      ['registrar', 'records-office'],
      ['programAdvisor', 'advisors']
    ])
  })
  it.each([
    [{ RIDGEWAY_PROXIES: 'many' }, /^RIDGEWAY_PROXIES: /],
    [{ RIDGEWAY_METRICS: '9464' }, /^RIDGEWAY_METRICS: has to be HOST:PORT/],
    [{ RIDGEWAY_LOG: 'loud' }, /^RIDGEWAY_LOG: /],
    [{ RIDGEWAY_SECOND_STEP: 'students' }, /^RIDGEWAY_SECOND_STEP: /],
    [{ RIDGEWAY_PASSWORDS: 'off' }, /^RIDGEWAY_PASSWORDS: nobody could sign in/],
    [{ RIDGEWAY_SIGN_ON: SIGN_ON.RIDGEWAY_SIGN_ON }, /^RIDGEWAY_ORIGIN: is needed/],
    [{ ...SIGN_ON, RIDGEWAY_SIGN_ON: 'http://id.harrowmere.example' }, /^RIDGEWAY_SIGN_ON: has to be https/],
    [
      { ...SIGN_ON, RIDGEWAY_SIGN_ON_ROLES: 'dean=deans' },
      /^RIDGEWAY_SIGN_ON_ROLES: “dean=deans” is not ROLE=GROUP/
    ],
    [{ ...SIGN_ON, RIDGEWAY_SIGN_ON_ROLES: 'registrar' }, /^RIDGEWAY_SIGN_ON_ROLES: /]
  ])('is refused by the name of the variable that is wrong: %o', (surroundings, sentence) => {
    expect(() => settingsIn(surroundings)).toThrow(sentence)
  })
})
