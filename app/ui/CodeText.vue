<script setup lang="ts">
import { autocompletion, completionKeymap, type CompletionResult } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { yaml } from '@codemirror/lang-yaml'
import { HighlightStyle, indentUnit, syntaxHighlighting } from '@codemirror/language'
import { setDiagnostics } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import type { Completions } from '#shared/completions'

/** A text of one of our languages: written with completion, faults marked where they stand. */
const props = defineProps<{
  label: string
  faults: readonly { from: number; to: number; message: string }[]
  /** What may follow the text of a line up to the cursor. */
  offers: (before: string) => Completions | undefined
  /** YAML with the numbers of its lines; otherwise a rule, on one line however long. */
  isYaml?: boolean
}>()
const text = defineModel<string>({ required: true })
const place = useTemplateRef<HTMLElement>('place')
let view: EditorView | undefined

function offered(at: { state: EditorState; pos: number; explicit: boolean }): CompletionResult | null {
  const line = at.state.doc.lineAt(at.pos)
  const before = line.text.slice(0, at.pos - line.from)
  const found = props.offers(before)
  if (!found || (found.from === before.length && !at.explicit)) return null
  return { from: line.from + found.from, options: found.options, validFor: /^[\w-]*$/ }
}

const look = EditorView.theme({
  '&': { height: '100%', fontSize: '13px', color: 'var(--ink)', backgroundColor: 'transparent' },
  '&.cm-focused': { outline: '2px solid var(--dusk)', outlineOffset: '1px' },
  '.cm-scroller': { fontFamily: 'ui-monospace, "DejaVu Sans Mono", monospace', lineHeight: '1.5' },
  '.cm-content': { caretColor: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-gutters': {
    color: 'var(--quiet)',
    backgroundColor: 'transparent',
    borderRight: '1px solid var(--rule)'
  },
  '.cm-activeLine': { backgroundColor: 'var(--shade)' },
  '.cm-activeLineGutter': { backgroundColor: 'transparent' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': {
    background: 'var(--dusk-tint) !important'
  },
  '.cm-lintRange-error': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--rowan)',
    textUnderlineOffset: '3px'
  },
  '.cm-tooltip': { color: 'var(--ink)', backgroundColor: 'var(--card)', border: '1px solid var(--rule)' },
  '.cm-diagnostic-error': { borderLeft: '4px solid var(--rowan)' },
  '.cm-tooltip-autocomplete > ul > li[aria-selected]': {
    color: 'var(--ink)',
    background: 'var(--dusk-tint)'
  },
  '.cm-completionDetail': { color: 'var(--quiet)', fontStyle: 'normal' }
})
const inks = HighlightStyle.define([
  { tag: tags.definition(tags.propertyName), color: 'var(--dusk)' },
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
  { tag: [tags.separator, tags.punctuation], color: 'var(--quiet)' }
])

onMounted(() => {
  const nonce = document.querySelector<HTMLElement>('script[nonce]')?.nonce ?? ''
  view = new EditorView({
    parent: place.value!,
    state: EditorState.create({
      doc: text.value,
      extensions: [
        EditorView.cspNonce.of(nonce),
        [history(), drawSelection(), EditorView.lineWrapping, look],
        props.isYaml
          ? [lineNumbers(), highlightActiveLine(), yaml(), indentUnit.of('  '), syntaxHighlighting(inks)]
          : EditorState.transactionFilter.of((change) => (change.newDoc.lines > 1 ? [] : change)),
        autocompletion({ override: [offered], icons: false }),
        // Tab leads on through the page, as everywhere.
        keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
        EditorView.contentAttributes.of({
          'aria-label': props.label,
          spellcheck: 'false',
          tabindex: '0'
        }),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) text.value = update.state.doc.toString()
        })
      ]
    })
  })
  mark()
})
onBeforeUnmount(() => view?.destroy())

function mark() {
  if (!view || view.state.doc.toString() !== text.value) return
  const found = props.faults.map((one) => ({ ...one, severity: 'error' as const }))
  view.dispatch(setDiagnostics(view.state, found))
}
watch(() => props.faults, mark)
watch(text, (now) => {
  if (!view || view.state.doc.toString() === now) return
  view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: now } })
})

/** Leads to a place of the text. */
function show({ from, to }: { from: number; to: number }) {
  if (!view) return
  view.dispatch({ selection: { anchor: from, head: to }, scrollIntoView: true })
  view.focus()
}
defineExpose({ show })
</script>

<template>
  <div ref="place" class="text" />
</template>

<style scoped>
.text {
  height: 100%;
  min-height: 0;
}
</style>
