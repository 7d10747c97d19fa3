export { Reader, RuleError, tokens, type Token } from './tokens'
