/**
 * Tokens of the small rule languages (course sets and prerequisites): words, numbers, signs.
 * Every token keeps its place in the text, so that a fault can be quoted where it stands.
 */
export interface Token {
  kind: 'word' | 'number' | 'sign' | 'end'
  text: string
  at: number
}

/** A rule that cannot be read or can never hold; carries the rule and the place of the fault. */
export class RuleError extends Error {
  constructor(
    readonly problem: string,
    readonly rule: string,
    readonly at: number
  ) {
    super(`${problem} at position ${at + 1} of "${rule}"`)
    this.name = 'RuleError'
  }
}

const TOKEN =
  /\s*(?:([A-Za-z](?!\d)[A-Za-z-]*)|([A-Za-z]?\d+(?:\.\d+)?(?:[A-Za-z]{1,2}(?![A-Za-z]))?)|(>=|<=|[(),*+<>=-]))/y

/** @throws RuleError at a character that belongs to no token. */
export function tokens(rule: string): Token[] {
  const found: Token[] = []
  TOKEN.lastIndex = 0
  while (TOKEN.lastIndex < rule.length) {
    const from = TOKEN.lastIndex
    const match = TOKEN.exec(rule)
    if (!match) {
      const at = from + (rule.slice(from).length - rule.slice(from).trimStart().length)
      if (at >= rule.length) break
      throw new RuleError(`unexpected "${rule[at]}"`, rule, at)
    }
    const text = match[1] ?? match[2] ?? match[3]!
    const kind = match[1] ? 'word' : match[2] ? 'number' : 'sign'
    found.push({ kind, text, at: TOKEN.lastIndex - text.length })
  }
  found.push({ kind: 'end', text: 'the end', at: rule.length })
  return found
}

/** Reads tokens one after another; `fail` names what was wanted. */
export class Reader {
  private i = 0
  private readonly all: Token[]

  constructor(readonly rule: string) {
    this.all = tokens(rule)
  }

  get next(): Token {
    return this.all[this.i]!
  }

  get afterNext(): Token {
    return this.all[Math.min(this.i + 1, this.all.length - 1)]!
  }

  take(): Token {
    const token = this.next
    if (token.kind !== 'end') this.i++
    return token
  }

  /** Takes the next token when it is this word (any case) or sign. */
  accept(text: string): boolean {
    if (this.next.kind === 'end' || this.next.text.toLowerCase() !== text) return false
    this.i++
    return true
  }

  expect(text: string): void {
    if (!this.accept(text)) this.fail(`"${text}"`)
  }

  /** A number, of a course with its letters. */
  number(what: string): Token {
    if (this.next.kind !== 'number') this.fail(what)
    return this.take()
  }

  /** A number of something, which has no letters. */
  amount(what: string): Token {
    if (!/^\d+(\.\d+)?$/.test(this.next.text)) this.fail(what)
    return this.take()
  }

  word(what: string): Token {
    if (this.next.kind !== 'word') this.fail(what)
    return this.take()
  }

  fail(wanted: string): never {
    const { text, kind, at } = this.next
    throw new RuleError(`expected ${wanted}, found ${kind === 'end' ? text : `"${text}"`}`, this.rule, at)
  }
}
