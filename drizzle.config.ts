import { defineConfig } from 'drizzle-kit'

export default defineConfig({
  dialect: 'mysql',
  schema: './server/db/schema/index.ts',
  out: './server/db/migrations',
  casing: 'snake_case'
})
