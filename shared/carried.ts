import type { RouteKey } from './api'

/** Readings that a device carries for hours without a line: what is in work, where its parts are, what is mixed. */
export const CARRIED = new Set<RouteKey>([
  'GET /api/now',
  'GET /api/timetable',
  'GET /api/pieces',
  'GET /api/pieces/:id',
  'GET /api/pieces/:id/plan',
  'GET /api/pieces/:id/planning',
  'GET /api/pieces/:id/examination',
  'GET /api/pieces/:id/panel',
  'GET /api/places',
  'GET /api/places/:code',
  'GET /api/store',
  'GET /api/recipes',
  'GET /api/batches',
  'GET /api/batches/:id',
])

/** Set by a device whose person left while there was no line: the session that its other cookie names is over. */
export const LEFT_COOKIE = 'hantverk-left'
