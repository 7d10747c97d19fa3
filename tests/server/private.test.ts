/** The private database: two beside each other, one that dies, one that is stopped while it starts, and who gets in. */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, describe, expect, it } from 'vitest'
import { startMariadb, type PrivateServer } from '../../tools/mariadb'
import { keepRunning, Stopped } from '../../tools/supervisor'

const folders: string[] = []
const servers: PrivateServer[] = []
afterAll(async () => {
  for (const server of servers) await server.stop()
  for (const folder of folders) rmSync(folder, { recursive: true, force: true })
})

function folder(): string {
  const made = mkdtempSync(join(tmpdir(), 'ridgeway-private-'))
  folders.push(made)
  return made
}

const running = (what: string) =>
  execFileSync('ps', ['-eo', 'pid,user,args'], { encoding: 'utf8' })
    .split('\n')
    .filter((line) => line.includes(what))

async function answers(url: string): Promise<boolean> {
  try {
    const connection = await mysql.createConnection({ uri: url })
    await connection.query('select 1')
    await connection.end()
    return true
  } catch {
    return false
  }
}

async function until(what: () => Promise<boolean> | boolean): Promise<void> {
  const end = Date.now() + 20_000
  while (!(await what())) {
    if (Date.now() > end) throw new Error('it did not come to that')
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}

describe('a private database', () => {
  it('starts beside another at the same time, lets in by its password alone, and comes back when it dies', async () => {
    const said: string[] = []
    const [one, other] = await Promise.all([
      startMariadb(folder(), { say: (line) => said.push(line) }),
      startMariadb(folder())
    ])
    servers.push(one, other)
    const [url, second] = await Promise.all([one.database('here'), other.database('here')])
    expect(await answers(url)).toBe(true)
    expect(await answers(second)).toBe(true)
    const { port } = new URL(url)
    expect(await answers(`mysql://root@127.0.0.1:${port}/here`)).toBe(false)
    expect(await answers(url.replace(/:[0-9a-f]+@/, ':guess@'))).toBe(false)
    if (process.getuid!() === 0)
      expect(running(`--port=${port}`).map((line) => line.trim().split(/\s+/)[1])).not.toContain('root')

    const before = one.pid()!
    process.kill(before, 'SIGKILL')
    await until(() => one.pid() !== before && answers(url))
    expect(said).toEqual(['The database ended by itself; starting it again.'])
    await one.stop()
    expect(await answers(url)).toBe(false)
    expect(running(`--port=${port}`)).toEqual([])
  })

  it('leaves nothing running when it is stopped while it starts', async () => {
    const at = folder()
    const ends = new AbortController()
    const starting = startMariadb(at, { signal: ends.signal })
    setTimeout(() => ends.abort(), 300)
    await expect(starting).rejects.toBeInstanceOf(Stopped)
    await until(() => running(at).length === 0)
    // And nothing in the way of the next start.
    const again = await startMariadb(at)
    servers.push(again)
    expect(await answers(await again.database('here'))).toBe(true)
    await expect(startMariadb(at)).rejects.toThrow(/is in use by process/)
  })

  it('puts down what a starter that was killed has left', async () => {
    const at = folder()
    const script = `import { startMariadb } from ${JSON.stringify(join(process.cwd(), 'tools/mariadb.ts'))}
      await startMariadb(${JSON.stringify(at)}); console.log('up'); process.kill(process.pid, 'SIGKILL')`
    try {
      execFileSync(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', script])
    } catch {
      // It was killed.
    }
    const left = Number(readFileSync(join(at, 'mariadb.pid'), 'utf8').split(' ')[0])
    expect(running(at).some((line) => line.trim().startsWith(`${left} `))).toBe(true)
    const server = await startMariadb(at)
    servers.push(server)
    expect(server.pid()).not.toBe(left)
    expect(running(`--datadir=${at}/`)).toHaveLength(1)
  })
})

describe('a process that is kept running', () => {
  const command = (script: string) => [process.execPath, '-e', script] as const

  it('is started again and again, and stopped between two starts too', async () => {
    let begun = 0
    const kept = await keepRunning({
      what: 'It',
      command: command(''),
      options: { stdio: 'ignore' },
      ready: () => Promise.resolve(),
      began: () => begun++
    })
    await until(() => begun === 3)
    await kept.stop()
    const then = begun
    await new Promise((resolve) => setTimeout(resolve, 1000))
    expect(begun).toBe(then)
  })

  it('says why it does not start at first', async () => {
    const starting = keepRunning({
      what: 'It',
      command: command('setTimeout(() => 0, 60000)'),
      options: { stdio: 'ignore' },
      ready: () => Promise.reject(new Error('no answer'))
    })
    await expect(starting).rejects.toThrow('no answer')
  })
})
