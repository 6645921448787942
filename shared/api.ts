/** The one registry of the API: who may call what, and what a call must carry. */
import type { z } from 'zod'
import type { Role } from '../core/safety'
import * as c from './colour'
import * as s from './schemas'

export type { Role }
export const ROLES = ['owner', 'lead', 'finisher', 'office'] as const satisfies readonly Role[]

const all: readonly Role[] = ROLES
const bench: readonly Role[] = ['owner', 'lead', 'finisher']
const decide: readonly Role[] = ['owner', 'lead']
const desk: readonly Role[] = ['owner', 'lead', 'office']
const owner: readonly Role[] = ['owner']

export interface RouteSpec {
  roles: readonly Role[] | 'public'
  body?: z.ZodType
  query?: z.ZodType
  /** carries one file, as multipart/form-data */
  file?: true
  /** bytes of JSON that it may carry, where that is more than the usual 256 kB */
  bytes?: number
  /** false: a write that may be repeated without harm and keeps no answer; it needs no UUID */
  once?: false
  /** may be called with a one-time password, before another was chosen */
  anyPassword?: true
}

export const API = {
  'GET /api/health': { roles: 'public' },
  'GET /api/session': { roles: 'public' },
  'POST /api/session': { roles: 'public', body: s.signIn, once: false },
  'DELETE /api/session': { roles: all, once: false, anyPassword: true },
  'PUT /api/session/password': { roles: all, body: s.changePassword, anyPassword: true },
  'GET /api/sessions': { roles: all },
  'DELETE /api/sessions/:id': { roles: all },
  'POST /api/first-owner': { roles: 'public', body: s.firstOwner, once: false },
  'GET /api/answer/:token': { roles: 'public' },
  'POST /api/answer/:token': { roles: 'public', body: s.clientAnswer },

  'GET /api/now': { roles: all },
  'GET /api/events': { roles: all },
  'POST /api/bench': { roles: bench, body: s.benchCommand },
  'POST /api/alarms': { roles: bench, body: s.alarmAck },
  'POST /api/air-log': { roles: bench, body: s.airLog, bytes: 2_500_000 },
  'POST /api/air': { roles: bench, body: s.airReading },
  'GET /api/timetable': { roles: all },

  'GET /api/pieces': { roles: all, query: s.pieceQuery },
  'POST /api/pieces': { roles: desk, body: s.takeIn },
  'GET /api/pieces/:id': { roles: all },
  'PATCH /api/pieces/:id': { roles: desk, body: s.pieceChange },
  'PUT /api/pieces/:id/place': { roles: all, body: s.standsAt },
  'POST /api/pieces/:id/parts': { roles: desk, body: s.addParts },
  'POST /api/pieces/:id/photographs': { roles: all, file: true, query: s.addedPicture },
  'GET /api/photographs/:address': { roles: all, query: s.pictureQuery },
  'PATCH /api/photographs/:address': { roles: bench, body: s.changePhotograph },
  'GET /api/pieces/:id/examination': { roles: all },
  'POST /api/pieces/:id/examination/overrules': { roles: bench, body: s.overruleExamination },
  'POST /api/pieces/:id/walk': { roles: bench, body: s.answerWalk },
  'POST /api/pieces/:id/findings': { roles: bench, body: s.addFinding },
  'PATCH /api/findings/:id': { roles: bench, body: s.changeFinding },
  'DELETE /api/findings/:id': { roles: bench },
  'PATCH /api/faces/:id': { roles: bench, body: s.changeFace },
  'POST /api/pieces/:id/moisture': { roles: bench, body: s.addMoisture },
  'POST /api/pieces/:id/patches': { roles: bench, body: s.addPatch },
  'POST /api/pieces/:id/items': { roles: bench, body: s.addItem },
  'PATCH /api/items/:id': { roles: bench, body: s.changeItem },
  'POST /api/items/:id/question': { roles: decide, body: s.askItem },
  'GET /api/places': { roles: all },
  'GET /api/places/:code': { roles: all },
  'GET /api/places/:code/label': { roles: all },
  'GET /api/pieces/:id/examinations': { roles: all },
  'POST /api/pieces/:id/examinations': { roles: bench, body: s.saveExamination },
  'POST /api/pieces/:id/examinations/read': { roles: decide, file: true },
  'GET /api/pieces/:id/report': { roles: all, query: s.reportQuery },
  'GET /api/pieces/:id/comparison': { roles: all, query: s.compareQuery },
  'POST /api/pieces/:id/tests': { roles: bench, body: s.addTest },
  'DELETE /api/tests/:id': { roles: bench },
  'POST /api/pieces/:id/evidence': { roles: decide, body: s.addEvidence },
  'POST /api/pieces/:id/swab': { roles: bench, body: s.readSwab },
  'GET /api/pieces/:id/routes': { roles: all, query: s.routeQuery },
  'GET /api/pieces/:id/planning': { roles: all },
  'PUT /api/pieces/:id/choice': { roles: decide, body: s.choose },
  'GET /api/pieces/:id/build-up': { roles: all },
  'GET /api/surfaces': { roles: all },
  'POST /api/surfaces': { roles: decide, body: s.knownSurface },
  'DELETE /api/surfaces/:id': { roles: decide },
  'PUT /api/pieces/:id/build-up': { roles: decide, body: s.compose },
  'GET /api/pieces/:id/plan': { roles: all },
  'POST /api/pieces/:id/steps': { roles: bench, body: s.addStep },
  'PATCH /api/steps/:id': { roles: bench, body: s.changeStep },
  'DELETE /api/steps/:id': { roles: bench, query: s.versionQuery },
  'POST /api/pieces/:id/plan-back': { roles: bench, body: s.stepBack },
  'POST /api/steps/:id/split': { roles: bench, body: s.splitStep },
  'DELETE /api/pieces/:id/ways': { roles: decide, query: s.versionQuery },
  'POST /api/pieces/:id/found': { roles: bench, body: s.takeFound },
  'POST /api/pieces/:id/mends': { roles: bench, body: s.mendVerdict },
  'POST /api/pieces/:id/overrules': { roles: bench, body: s.overrule },
  'GET /api/pieces/:id/log': { roles: all, query: s.logQuery },
  'GET /api/find': { roles: all, query: s.findQuery },
  'GET /api/log': { roles: all, query: s.dayLogQuery },
  'GET /api/log/export': { roles: all, query: s.exportLogQuery },
  'POST /api/pieces/:id/hand-over': { roles: desk, body: s.handOver },

  'POST /api/pieces/:id/approvals': { roles: desk, body: s.ask },
  'POST /api/approvals/:id/answer': { roles: desk, body: s.recordAnswer },
  'POST /api/approvals/:id/words': { roles: desk, body: s.replyWord },
  'GET /api/answers': { roles: all },
  'POST /api/mails/:id/again': { roles: desk, body: s.mailAgain },
  'POST /api/mails/release': { roles: owner, body: s.releaseMail },

  'GET /api/store': { roles: all },
  'POST /api/products': { roles: decide, body: s.addProduct },
  'POST /api/products/:id/label': { roles: decide, body: s.changeLabel },
  'POST /api/lots': { roles: all, body: s.addLot },

  'GET /api/colour': { roles: all, query: c.colourQuery },
  'POST /api/readings': { roles: bench, body: c.addReading },
  'POST /api/readings/measure': { roles: bench, body: c.measure },
  'POST /api/readings/import': { roles: bench, body: c.importReadings, bytes: 1_300_000 },
  'GET /api/readings/export': { roles: all, query: c.exportQuery },
  'DELETE /api/readings/:id': { roles: bench },
  'POST /api/colourants': { roles: decide, body: c.addColourant },
  'POST /api/colourants/learn': { roles: decide, body: c.learn },
  'GET /api/recipes': { roles: all, query: c.recipeQuery },
  'POST /api/recipes': { roles: bench, body: c.saveRecipe },
  'GET /api/recipes/:id': { roles: all },
  'GET /api/batches': { roles: all, query: c.batchQuery },
  'POST /api/batches': { roles: bench, body: c.addBatch },
  'GET /api/batches/:id': { roles: all },
  'POST /api/batches/:id/acts': { roles: bench, body: c.batchAct },
  'GET /api/batches/:id/label': { roles: all },
  'GET /api/balance': { roles: bench },
  'POST /api/balance': { roles: bench, body: c.balanceAct, once: false },
  'GET /api/pieces/:id/panel': { roles: all },
  'POST /api/pieces/:id/bands': { roles: bench, body: c.addBand },
  'PATCH /api/bands/:id': { roles: bench, body: c.changeBand },
  'POST /api/bands/:id/question': { roles: decide, body: c.askBand },

  'GET /api/house': { roles: all },
  'PUT /api/house': { roles: owner, body: s.houseChange },
  'GET /api/shop': { roles: all },
  'PUT /api/shop': { roles: owner, body: s.shopChange },
  'PUT /api/shop/hours': { roles: owner, body: s.hoursChange },
  'POST /api/people': { roles: owner, body: s.addPerson },
  'PATCH /api/people/:id': { roles: owner, body: s.changePerson },
  // its answer is shown once and kept nowhere, so it cannot be given again
  'POST /api/people/:id/password': { roles: owner, body: s.resetPassword, once: false },
  'POST /api/licences': { roles: owner, body: s.addLicence },
  'DELETE /api/licences/:id': { roles: owner },
  'POST /api/clock': { roles: owner, body: s.setClock, once: false },
} as const satisfies Record<string, RouteSpec>

export type RouteKey = keyof typeof API

/** The one shape of an error. */
export interface Problem {
  code: string
  message: string
  fields?: Record<string, string>
}
