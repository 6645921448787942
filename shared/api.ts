/** The one registry of the API: who may call what, and what a call must carry. */
import type { z } from 'zod'
import * as c from './colour'
import { type Right, rightChange } from './rights'
import * as s from './schemas'

export interface RouteSpec {
  /** 'anyone': whoever is signed in; 'owner': no right that can be given away */
  right: Right | 'anyone' | 'owner' | 'public'
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
  /** wants the password within the last minutes */
  proof?: true
  /** a registered tablet may call it while nobody stands at it */
  tablet?: true
}

export const API = {
  'GET /api/health': { right: 'public' },
  'GET /api/session': { right: 'public' },
  'POST /api/session': { right: 'public', body: s.signIn, once: false },
  'DELETE /api/session': { right: 'anyone', once: false, anyPassword: true },
  'POST /api/session/tap': { right: 'public', body: s.tap, once: false },
  'POST /api/session/proof': { right: 'anyone', body: s.proof, once: false },
  'PUT /api/session/pin': { right: 'anyone', body: s.choosePin },
  'PUT /api/session/password': { right: 'anyone', body: s.changePassword, anyPassword: true },
  'GET /api/sessions': { right: 'anyone' },
  'DELETE /api/sessions/:id': { right: 'anyone' },
  'POST /api/first-owner': { right: 'public', body: s.firstOwner, once: false },
  'GET /api/answer/:token': { right: 'public' },
  'GET /api/answer/:token/photographs/:address': { right: 'public', query: s.pictureQuery },
  'POST /api/answer/:token': { right: 'public', body: s.clientAnswer },

  'GET /api/now': { right: 'anyone', tablet: true },
  'GET /api/events': { right: 'anyone', tablet: true },
  'POST /api/bench': { right: 'work', tablet: true, body: s.benchCommand },
  'POST /api/late/:id/settle': { right: 'work', body: s.settleLate },
  'POST /api/late/names': { right: 'anyone', body: s.nameLate },
  'POST /api/late/:id/seen': { right: 'owner' },
  'POST /api/alarms': { right: 'work', tablet: true, body: s.alarmAck },
  'POST /api/air-log': { right: 'work', body: s.airLog, bytes: 2_500_000 },
  'POST /api/air': { right: 'work', body: s.airReading },
  'GET /api/timetable': { right: 'anyone', query: s.timetableQuery },
  'GET /api/timetable/week': { right: 'anyone', query: s.timetableQuery },
  'DELETE /api/products/:id/dry-times': { right: 'store' },
  'GET /api/feeds': { right: 'anyone' },
  'POST /api/feeds': { right: 'anyone', body: s.feedBody },
  'DELETE /api/feeds/:id': { right: 'anyone' },
  'GET /api/calendar/:token': { right: 'public' },
  'POST /api/timetable/what-if': { right: 'anyone', body: s.whatIf, once: false },
  'POST /api/timetable/take': { right: 'edit-plan', body: s.takeChange },
  'GET /api/pieces/:id/promise': { right: 'anyone', query: s.promiseQuery },
  'POST /api/pieces/:id/promise': { right: 'anyone', body: s.promiseHelp, once: false },
  'POST /api/steps/:id/pin': { right: 'edit-plan', body: s.pinStep, once: false },

  'GET /api/pieces': { right: 'anyone', query: s.pieceQuery },
  'POST /api/pieces': { right: 'take-in', body: s.takeIn },
  'POST /api/enquiries': { right: 'take-in', body: s.enquire },
  'PUT /api/pieces/:id/state': { right: 'take-in', body: s.enquiryBecomes },
  'GET /api/pieces/:id/estimate': { right: 'quote' },
  'GET /api/pieces/:id': { right: 'anyone' },
  'GET /api/pieces/:id/like': { right: 'anyone' },
  'PATCH /api/pieces/:id': { right: 'take-in', body: s.pieceChange },
  'PUT /api/pieces/:id/place': { right: 'anyone', body: s.standsAt },
  'POST /api/pieces/:id/parts': { right: 'take-in', body: s.addParts },
  'POST /api/pieces/:id/photographs': { right: 'anyone', tablet: true, file: true, query: s.addedPicture },
  'GET /api/photographs/:address': { right: 'anyone', tablet: true, query: s.pictureQuery },
  'PATCH /api/photographs/:address': { right: 'examine', body: s.changePhotograph },
  'GET /api/pieces/:id/examination': { right: 'anyone' },
  'POST /api/pieces/:id/examination/overrules': { right: 'examine', body: s.overruleExamination },
  'POST /api/pieces/:id/walk': { right: 'examine', body: s.answerWalk },
  'POST /api/pieces/:id/findings': { right: 'examine', body: s.addFinding },
  'PATCH /api/findings/:id': { right: 'examine', body: s.changeFinding },
  'DELETE /api/findings/:id': { right: 'examine' },
  'PATCH /api/faces/:id': { right: 'examine', body: s.changeFace },
  'POST /api/pieces/:id/moisture': { right: 'examine', body: s.addMoisture },
  'POST /api/pieces/:id/patches': { right: 'examine', body: s.addPatch },
  'POST /api/pieces/:id/items': { right: 'examine', body: s.addItem },
  'PATCH /api/items/:id': { right: 'examine', body: s.changeItem },
  'POST /api/items/:id/question': { right: 'quote', body: s.askItem },
  'GET /api/places': { right: 'anyone' },
  'GET /api/places/:code': { right: 'anyone' },
  'GET /api/places/:code/label': { right: 'anyone' },
  'GET /api/pieces/:id/examinations': { right: 'anyone' },
  'POST /api/pieces/:id/examinations': { right: 'examine', body: s.saveExamination },
  'POST /api/pieces/:id/examinations/read': { right: 'plan', file: true },
  'GET /api/pieces/:id/report': { right: 'anyone', query: s.reportQuery },
  'GET /api/pieces/:id/comparison': { right: 'anyone', query: s.compareQuery },
  'POST /api/pieces/:id/tests': { right: 'examine', body: s.addTest },
  'DELETE /api/tests/:id': { right: 'examine' },
  'POST /api/pieces/:id/evidence': { right: 'plan', body: s.addEvidence },
  'POST /api/pieces/:id/swab': { right: 'examine', body: s.readSwab },
  'GET /api/pieces/:id/routes': { right: 'anyone', query: s.routeQuery },
  'GET /api/pieces/:id/planning': { right: 'anyone' },
  'PUT /api/pieces/:id/choice': { right: 'plan', body: s.choose },
  'GET /api/pieces/:id/build-up': { right: 'anyone' },
  'GET /api/surfaces': { right: 'anyone' },
  'POST /api/surfaces': { right: 'plan', body: s.knownSurface },
  'DELETE /api/surfaces/:id': { right: 'plan' },
  'PUT /api/pieces/:id/build-up': { right: 'plan', body: s.compose },
  'GET /api/pieces/:id/plan': { right: 'anyone' },
  'POST /api/pieces/:id/steps': { right: 'edit-plan', body: s.addStep },
  'PATCH /api/steps/:id': { right: 'edit-plan', body: s.changeStep },
  'DELETE /api/steps/:id': { right: 'edit-plan', query: s.versionQuery },
  'POST /api/pieces/:id/plan-back': { right: 'edit-plan', body: s.stepBack },
  'POST /api/steps/:id/split': { right: 'edit-plan', body: s.splitStep },
  'DELETE /api/pieces/:id/ways': { right: 'plan', query: s.versionQuery },
  'POST /api/pieces/:id/found': { right: 'edit-plan', body: s.takeFound },
  'POST /api/pieces/:id/mends': { right: 'edit-plan', body: s.mendVerdict },
  'POST /api/pieces/:id/overrules': { right: 'edit-plan', body: s.overrule },
  'GET /api/pieces/:id/log': { right: 'anyone', query: s.logQuery },
  'GET /api/find': { right: 'anyone', query: s.findQuery },
  'GET /api/log': { right: 'anyone', query: s.dayLogQuery },
  'GET /api/log/export': { right: 'anyone', query: s.exportLogQuery },
  'GET /api/pieces/:id/hand-over': { right: 'hand-over' },
  'DELETE /api/pieces/:id/hand-over': { right: 'hand-over', query: s.versionQuery },
  'POST /api/pieces/:id/hand-over': { right: 'hand-over', body: s.handOver },

  'POST /api/pieces/:id/approvals': { right: 'quote', body: s.ask },
  'POST /api/pieces/:id/approvals/preview': { right: 'quote', body: s.ask, once: false },
  'GET /api/pieces/:id/asking': { right: 'quote' },
  'POST /api/pieces/:id/link': { right: 'quote', body: s.noBody },
  'DELETE /api/pieces/:id/link': { right: 'quote' },
  'PUT /api/shop/reminders': { right: 'shop', body: s.reminding },
  'GET /api/approvals/:id/since': { right: 'anyone' },
  'POST /api/approvals/:id/answer': { right: 'quote', body: s.recordAnswer },
  'POST /api/approvals/:id/words': { right: 'quote', body: s.replyWord },
  'GET /api/clients': { right: 'anyone', query: s.clientQuery },
  'GET /api/clients/:id': { right: 'anyone' },
  'PATCH /api/clients/:id': { right: 'take-in', body: s.changeClient },
  'POST /api/clients/:id/merge': { right: 'take-in', body: s.mergeClients },
  'GET /api/answers': { right: 'anyone' },
  'POST /api/mails/:id/again': { right: 'quote', body: s.mailAgain },
  'POST /api/mails/release': { right: 'shop', proof: true, body: s.releaseMail },

  'GET /api/store': { right: 'anyone' },
  'POST /api/products': { right: 'store', body: s.addProduct },
  'POST /api/products/:id/label': { right: 'store', body: s.changeLabel },
  'POST /api/lots': { right: 'anyone', body: s.addLot },

  'GET /api/colour': { right: 'anyone', query: c.colourQuery },
  'POST /api/readings': { right: 'mix', body: c.addReading },
  'POST /api/readings/measure': { right: 'mix', body: c.measure },
  'POST /api/readings/import': { right: 'mix', body: c.importReadings, bytes: 1_300_000 },
  'GET /api/readings/export': { right: 'anyone', query: c.exportQuery },
  'DELETE /api/readings/:id': { right: 'mix' },
  'POST /api/colourants': { right: 'store', body: c.addColourant },
  'POST /api/colourants/learn': { right: 'store', body: c.learn },
  'GET /api/recipes': { right: 'anyone', query: c.recipeQuery },
  'POST /api/recipes': { right: 'mix', body: c.saveRecipe },
  'GET /api/recipes/:id': { right: 'anyone' },
  'GET /api/batches': { right: 'anyone', query: c.batchQuery },
  'POST /api/batches': { right: 'mix', body: c.addBatch },
  'GET /api/batches/:id': { right: 'anyone' },
  'POST /api/batches/:id/acts': { right: 'mix', body: c.batchAct },
  'GET /api/batches/:id/label': { right: 'anyone' },
  'GET /api/balance': { right: 'mix' },
  'POST /api/balance': { right: 'mix', body: c.balanceAct, once: false },
  'GET /api/pieces/:id/panel': { right: 'anyone' },
  'POST /api/pieces/:id/bands': { right: 'mix', body: c.addBand },
  'PATCH /api/bands/:id': { right: 'mix', body: c.changeBand },
  'POST /api/bands/:id/question': { right: 'quote', body: c.askBand },

  'GET /api/house': { right: 'anyone' },
  'PUT /api/house': { right: 'shop', proof: true, body: s.houseChange },
  'GET /api/shop': { right: 'anyone' },
  'PUT /api/shop': { right: 'shop', proof: true, body: s.shopChange },
  'PUT /api/shop/hours': { right: 'shop', proof: true, body: s.hoursChange },
  'GET /api/paces': { right: 'anyone' },
  'DELETE /api/paces': { right: 'shop', once: false },
  'POST /api/schedule': { right: 'work', once: false },
  'DELETE /api/schedule': { right: 'work', once: false },
  'PUT /api/steps/:id/pin': { right: 'edit-plan', body: s.pinStep },
  'DELETE /api/steps/:id/pin': { right: 'edit-plan' },
  'GET /api/rooms': { right: 'anyone' },
  'POST /api/rooms': { right: 'shop', proof: true, body: s.roomBody },
  'PUT /api/rooms/:id': { right: 'shop', proof: true, body: s.changeRoom },
  'DELETE /api/rooms/:id': { right: 'shop', proof: true },
  'POST /api/racks': { right: 'shop', body: s.addRack },
  'DELETE /api/racks/:id': { right: 'shop' },
  'PUT /api/people/:id/presence': { right: 'people', body: s.presenceChange },
  'PUT /api/shop/fetch-days': { right: 'shop', body: s.fetchDays },
  'POST /api/shop/holidays': { right: 'shop', body: s.holidaysFile, bytes: 2_100_000 },
  'POST /api/people': { right: 'people', proof: true, body: s.addPerson },
  'PATCH /api/people/:id': { right: 'people', proof: true, body: s.changePerson },
  'PUT /api/rights': { right: 'owner', proof: true, body: rightChange },
  'GET /api/lan': { right: 'anyone' },
  'GET /api/lan/authority': { right: 'public' },
  'GET /api/tablets': { right: 'anyone' },
  'POST /api/tablets': { right: 'people', proof: true, body: s.registerTablet },
  'PATCH /api/tablets/:id': { right: 'people', body: s.changeTablet },
  'DELETE /api/tablets/:id': { right: 'people', proof: true },
  // its answer is shown once and kept nowhere, so it cannot be given again
  'POST /api/people/:id/password': { right: 'people', proof: true, body: s.resetPassword, once: false },
  'POST /api/licences': { right: 'shop', proof: true, body: s.addLicence },
  'DELETE /api/licences/:id': { right: 'shop', proof: true },
  'POST /api/clock': { right: 'shop', body: s.setClock, once: false },
} as const satisfies Record<string, RouteSpec>

export type RouteKey = keyof typeof API

/** The one shape of an error. */
export interface Problem {
  code: string
  message: string
  fields?: Record<string, string>
}
