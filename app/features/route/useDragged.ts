import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'

/** Makes an element something that can be dragged, while `what` says what it is. */
export function useDragged(
  element: Ref<HTMLElement | undefined>,
  what: () => string | undefined,
  lifted: (what: string | undefined) => void
): void {
  let end: (() => void) | undefined
  onMounted(() => {
    end = draggable({
      element: element.value!,
      canDrag: () => what() !== undefined,
      getInitialData: () => ({ what: what() }),
      onDragStart: () => lifted(what()),
      onDrop: () => lifted(undefined)
    })
  })
  onBeforeUnmount(() => end?.())
}

/** Makes an element a place where something is dropped. */
export function useDropPlace(
  element: Ref<HTMLElement | undefined>,
  { over, drop }: { over: (is: boolean) => void; drop: (what: string) => void }
): void {
  let end: (() => void) | undefined
  onMounted(() => {
    end = dropTargetForElements({
      element: element.value!,
      onDragEnter: () => over(true),
      onDragLeave: () => over(false),
      onDrop: ({ source }) => {
        over(false)
        drop(String(source.data.what))
      }
    })
  })
  onBeforeUnmount(() => end?.())
}
