import { defineConfig } from 'drizzle-kit'

export default defineConfig({
  dialect: 'postgresql',
  schema: './apps/server/src/db/schema/index.ts',
  out: './apps/server/migrations',
})
