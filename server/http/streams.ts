import { metrics } from '#server/gateways/metrics'

/** Answers that stay open until somebody ends them. A server that is told to stop would wait for each of them. */
const open = new Set<() => void>()
let ending = false

/** Keeps what ends a stream, until the returned function is called. Once the server ends, it is ended at once. */
export function keepStream(end: () => void): () => void {
  if (ending) {
    end()
    return () => undefined
  }
  open.add(end)
  metrics.streamBegan()
  return () => {
    if (open.delete(end)) metrics.streamEnded()
  }
}

/** Ends all of them, those still to come included. Browsers come back by themselves, to whoever serves then. */
export function endStreams(): void {
  ending = true
  for (const end of open) end()
  open.clear()
}
