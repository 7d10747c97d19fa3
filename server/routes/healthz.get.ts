import { defineEventHandler } from 'h3'

/** For a monitor: the server answers. */
export default defineEventHandler(() => 'ok')
