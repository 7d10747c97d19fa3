/** The configuration for a proxy that ships, where that proxy is there: https outside, streams at once, who asks is known. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { request } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort } from '../../tools/mariadb'
import { startSite, type Site } from '../../tools/site'
import { expect, ROOT, test } from './site'

const NGINX = '/usr/sbin/nginx'
const NAME = 'plan.harrowmere.example'
test.use({ scenario: 'proxy' })

interface Answer {
  status: number
  headers: Record<string, string | string[] | undefined>
  body: string
}

/** Through the proxy, by its name; `until` ends it before the answer does. */
function ask(
  port: number,
  path: string,
  { method = 'GET', headers = {}, body = '', until = (_: string): boolean => false } = {}
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const sent = request(
      {
        ...{ host: '127.0.0.1', port, path, method, servername: NAME, rejectUnauthorized: false },
        headers: { host: NAME, ...headers, ...(body && { 'content-type': 'application/json' }) }
      },
      (answer) => {
        let text = ''
        const done = () => resolve({ status: answer.statusCode!, headers: answer.headers, body: text })
        answer.on('data', (chunk: Buffer) => {
          text += chunk.toString()
          if (!until(text)) return
          done()
          answer.destroy()
        })
        answer.on('end', done)
      }
    )
    sent.on('error', reject)
    sent.end(body)
  })
}

if (existsSync(NGINX))
  test('behind the proxy that its configuration is for @long', async ({ site }) => {
    const folder = mkdtempSync(join(tmpdir(), 'ridgeway-proxy-'))
    const [port, plain, inner] = [await freePort(), await freePort(), await freePort()]
    let behind: Site | undefined
    let proxy: ChildProcess | undefined
    try {
      const env = { RIDGEWAY_ORIGIN: `https://${NAME}`, RIDGEWAY_PROXIES: '1' }
      behind = await startSite(ROOT, inner, site.url, { env })
      const [key, certificate] = [join(folder, 'key.pem'), join(folder, 'certificate.pem')]
      const made = spawnSync(
        'openssl',
        ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', `/CN=${NAME}`].concat([
          '-keyout',
          key,
          '-out',
          certificate
        ])
      )
      expect(made.status).toBe(0)
      // As it ships, but for where it listens, its certificate and the one server.
      const shipped = readFileSync(join(ROOT, 'deploy/nginx.conf'), 'utf8')
        .replace('listen 80;', `listen 127.0.0.1:${plain};`)
        .replace('listen 443 ssl http2;', `listen 127.0.0.1:${port} ssl http2;`)
        .replace(/ssl_certificate .*/, `ssl_certificate ${certificate};`)
        .replace(/ssl_certificate_key .*/, `ssl_certificate_key ${key};`)
        .replace('server 127.0.0.1:3000;', `server ${new URL(behind.address).host};`)
      const paths = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']
        .map((one) => `${one}_temp_path ${folder}/${one};`)
        .join(' ')
      const whole = `pid ${folder}/pid; error_log ${folder}/error.log; daemon off;
        events {} http { access_log off; ${paths} ${shipped} }`
      writeFileSync(join(folder, 'nginx.conf'), whole)
      const tried = spawnSync(NGINX, ['-t', '-c', join(folder, 'nginx.conf'), '-p', folder], {
        encoding: 'utf8'
      })
      expect(tried.stderr).toContain('test is successful')
      proxy = spawn(NGINX, ['-c', join(folder, 'nginx.conf'), '-p', folder], { stdio: 'ignore' })
      await expect
        .poll(() =>
          ask(port, '/healthz').then(
            (one) => one.status,
            () => 0
          )
        )
        .toBe(200)

      const origin = { origin: `https://${NAME}` }
      const enter = (name: string, password: string, headers = {}) =>
        ask(port, '/api/session', {
          method: 'POST',
          headers: { ...origin, ...headers },
          body: JSON.stringify({ name, password })
        })
      const signedIn = await enter('imke.varga', 'harrowmere')
      expect(signedIn.status).toBe(200)
      expect(signedIn.headers['x-request-id']).toMatch(/^[0-9a-f]{32}$/)
      const [cookie] = signedIn.headers['set-cookie'] as string[]
      expect(cookie).toMatch(/^__Host-ridgeway=.*; Secure/)
      const own = { cookie: cookie!.split(';')[0]! }
      expect((await ask(port, '/api/students/1', { headers: own })).status).toBe(200)

      // Each guess claims another address; what counts is where the proxy was asked from.
      const guess = (i: number) =>
        enter('wren.castellan', 'guess', { 'x-forwarded-for': `198.51.100.${i}` }).then((one) => one.status)
      const guesses: number[] = []
      for (let i = 0; i < 6; i++) guesses.push(await guess(i))
      expect(guesses).toEqual([401, 401, 401, 401, 401, 429])

      // The stream begins at once, and is not held back.
      const stream = ask(port, '/api/news', { headers: own, until: (text) => text.length > 0 })
      const first = await Promise.race([
        stream,
        new Promise<undefined>((end) => setTimeout(end, 5000, undefined))
      ])
      expect(first?.status).toBe(200)
      const led = await fetch(`http://127.0.0.1:${plain}/sign-in`, { redirect: 'manual' })
      expect(led.status).toBe(301)
    } finally {
      proxy?.kill('SIGTERM')
      await behind?.stop()
      rmSync(folder, { recursive: true, force: true })
    }
  })
