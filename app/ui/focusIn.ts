import type { VNode } from 'vue'

/** Puts the focus into a field as soon as it is there, so that nothing typed is lost: `@vue:mounted="focusIn"`. */
export function focusIn({ el }: VNode): void {
  ;(el as HTMLElement).querySelector<HTMLElement>('input, textarea')?.focus()
}
