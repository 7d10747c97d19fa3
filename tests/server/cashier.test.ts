/** A cashier and a sender of transcripts of the college's own, asked over the network. */
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterEach, describe, expect, it } from 'vitest'
import { cashierAt } from '#server/gateways/cashier'
import { senderAt, type TranscriptSent } from '#server/gateways/transcripts'

let server: Server | undefined
afterEach(() => new Promise<void>((resolve) => (server ? server.close(() => resolve()) : resolve())))

/** What is sent, and a server that answers it so. */
async function answering(status: number, body: string) {
  const sent: unknown[] = []
  server = createServer((request, response) => {
    let text = ''
    request.on('data', (chunk: Buffer) => (text += chunk.toString()))
    request.on('end', () => {
      sent.push(JSON.parse(text))
      response.writeHead(status, { 'content-type': 'application/json' }).end(body)
    })
  })
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  const address = new URL(`http://127.0.0.1:${port}/there`)
  return { sent, cashier: cashierAt(address), sender: senderAt(address) }
}
const payment = { reference: 'ridgeway-7', student: 'H0000001', amount: 12_345 }

describe('a cashier over the network', () => {
  it.each(['taken', 'refused'] as const)(
    'is sent the payment, and believed that it is %s',
    async (outcome) => {
      const { sent, cashier } = await answering(200, JSON.stringify({ outcome }))
      expect(await cashier.take(payment)).toBe(outcome)
      expect(sent).toEqual([payment])
    }
  )
  it.each([
    [500, ''],
    [200, 'not JSON'],
    [200, '{"outcome":"perhaps"}']
  ])('that answers %i with "%s" has not answered', async (status, body) => {
    const { cashier } = await answering(status, body)
    await expect(cashier.take(payment)).rejects.toThrow()
  })
})

describe('a sender of transcripts over the network', () => {
  const transcript = {
    to: 'Merrow Archive',
    email: 'desk@merrow.example',
    reference: 'ridgeway-transcript-7'
  }
  it('has it once it answers with 2xx, and not before', async () => {
    const { sent, sender } = await answering(202, '')
    await sender.send(transcript as TranscriptSent)
    expect(sent).toEqual([transcript])
  })
  it('does not have it where it answers otherwise', async () => {
    const { sender } = await answering(503, '')
    await expect(sender.send(transcript as TranscriptSent)).rejects.toThrow('answered 503')
  })
})
