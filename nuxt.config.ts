import { randomUUID } from 'node:crypto'
import { fileURLToPath } from 'node:url'
import { EARLY_READS } from './app/ui/earlyReads'
import { chunks } from './tools/chunks'

/** Packages bundled ahead in development, whose list is emptied on the way; without it a cold start loads twice. */
const optimizeDeps = ['zod', '@mdi/js', 'luxon', 'ajv/dist/2020.js']

/** Of the pages that the server writes out whole, which know nothing of the bundle. */
const FONTS = ['bricolage-grotesque', 'atkinson-hyperlegible-next']

/** Registered by `app/plugins/laterControls.client.ts`. The module hands on whatever is not to be imported by itself. */
const LATER_CONTROLS = ['VSelect', 'VTextarea', 'VList', 'VListItem']

const split = chunks()

const isDevelopment = process.env.NODE_ENV === 'development'

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  modules: ['@pinia/nuxt', 'vuetify-nuxt-module', 'nuxt-security', '@nuxt/eslint'],
  ssr: false,
  // The code of a place is fetched when somebody is about to go there, that of a panel when it is opened.
  hooks: {
    'build:manifest': (manifest) => {
      for (const file of Object.values(manifest)) file.dynamicImports = []
    },
    // What endpoints answer has types of its own; those that would be drawn from the code are most of a check of types.
    'nitro:init': (nitro) => {
      nitro.hooks.hook('types:extend', (types) => {
        types.routes = {}
      })
    }
  },
  experimental: {
    defaults: { nuxtLink: { prefetchOn: { interaction: true, visibility: false } } }
  },
  telemetry: false,
  devtools: { enabled: false },
  css: [
    '@fontsource-variable/bricolage-grotesque/index.css',
    '@fontsource-variable/atkinson-hyperlegible-next/index.css',
    '~/theme/base.css'
  ],
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Ridgeway',
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
      script: [{ innerHTML: EARLY_READS, tagPosition: 'head' }],
      link: [{ rel: 'icon', href: '/ridge.svg', type: 'image/svg+xml' }]
    }
  },
  runtimeConfig: {
    databaseUrl: '',
    public: { demo: false, demoPassword: '' }
  },
  nitro: {
    replace: { 'process.env.RIDGEWAY_BUILD': JSON.stringify(randomUUID()) },
    compressPublicAssets: { gzip: true, brotli: true },
    publicAssets: FONTS.map((name) => ({
      dir: fileURLToPath(new URL(`node_modules/@fontsource-variable/${name}/files`, import.meta.url)),
      baseURL: `/fonts/${name}`,
      maxAge: 31_536_000
    }))
  },
  // The formatter breaks lines where a blank matters; keep it.
  vue: { compilerOptions: { whitespace: 'preserve' } },
  vite: {
    // Few files that are worth a request each, rather than one for each component.
    build: {
      cssMinify: 'lightningcss',
      cssCodeSplit: false
    },
    // The development server asks for a server entry even where nothing is rendered on the server.
    $client: {
      build: { rollupOptions: { output: { manualChunks: split.manualChunks } } },
      environments: { ssr: { build: { rollupOptions: { input: { server: 'nuxt/dist/app/entry' } } } } },
      plugins: [
        split.plugin,
        {
          name: 'ridgeway:keep-optimized',
          enforce: 'post',
          configEnvironment(name: string) {
            return name === 'client' ? { optimizeDeps: { include: optimizeDeps } } : undefined
          }
        }
      ]
    }
  },
  // Nothing reads them on the server.
  sourcemap: { server: false, client: false },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  vuetify: {
    moduleOptions: { styles: true, prefixComposables: true, ignoreDirectives: LATER_CONTROLS as never },
    vuetifyOptions: './vuetify.config.ts'
  },
  security: {
    rateLimiter: false,
    // Bodies are read, counted and checked by the routes themselves.
    requestSizeLimiter: false,
    xssValidator: false,
    corsHandler: false,
    headers: {
      crossOriginEmbedderPolicy: false,
      // Said behind https only, by the server itself.
      strictTransportSecurity: false,
      // Of browsers that are gone.
      xDownloadOptions: false,
      xPermittedCrossDomainPolicies: false,
      xXSSProtection: false,
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        // The solver that fills routes is compiled in its worker.
        'script-src': [
          "'self'",
          "'nonce-{{nonce}}'",
          "'strict-dynamic'",
          // The checks of answers are compiled in development.
          isDevelopment ? "'unsafe-eval'" : "'wasm-unsafe-eval'"
        ],
        // The development server writes styles into the page.
        'style-src': ["'self'", isDevelopment ? "'unsafe-inline'" : "'nonce-{{nonce}}'"],
        'font-src': ["'self'", 'data:'],
        'img-src': ["'self'", 'data:'],
        'connect-src': ["'self'"],
        'worker-src': ["'self'", 'blob:'],
        'object-src': ["'none'"],
        'base-uri': ["'none'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
        'upgrade-insecure-requests': false
      }
    }
  },
  routeRules: {
    // No script at all, and styles from files alone.
    '/public/**': {
      security: {
        headers: {
          contentSecurityPolicy: {
            'default-src': ["'none'"],
            'script-src': ["'none'"],
            'style-src': ["'self'"]
          }
        }
      }
    }
  },
  imports: { autoImport: true, dirs: ['features/**', 'ui'] },
  components: [
    { path: '~/features', pathPrefix: false, extensions: ['vue'] },
    { path: '~/ui', pathPrefix: false, extensions: ['vue'] }
  ]
})
