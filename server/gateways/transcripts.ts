/**
 * Whoever hands transcripts over to those they are for. The stand-in takes every one; a college puts the address of its
 * own in `RIDGEWAY_TRANSCRIPTS`, which gets a POST of `{ reference, to, email, transcript }` and answers with a status
 * of 2xx once it has it. The same reference sent again is the same transcript.
 */
import { theSettings } from '#server/settings'
import type { Transcript } from '#shared/record/transcript'

export interface TranscriptSent {
  reference: string
  /** Who receives it. */
  to: string
  email: string
  transcript: Transcript
}

export interface TranscriptSender {
  /** @throws where it is not known to have arrived */
  send(sent: TranscriptSent): Promise<void>
}

const PATIENCE_MS = 10_000

/** A sender that is asked over the network. */
export function senderAt(address: URL): TranscriptSender {
  return {
    async send(sent) {
      const response = await fetch(address, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(sent),
        signal: AbortSignal.timeout(PATIENCE_MS)
      })
      if (!response.ok) throw new Error(`the sender of transcripts answered ${response.status}`)
    }
  }
}

const standIn: TranscriptSender = { send: () => Promise.resolve() }

export function theTranscriptSender(): TranscriptSender {
  const { transcripts } = theSettings()
  return transcripts ? senderAt(transcripts) : standIn
}
