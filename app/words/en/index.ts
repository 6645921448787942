/**
 * Every string of the interface, a file for each place. What core says stands in core, beside the data it belongs to.
 */
import breath from './breath'
import client from './client'
import colour from './colour'
import common from './common'
import examine from './examine'
import fault from './fault'
import line from './line'
import mixing from './mixing'
import now from './now'
import pieces from './pieces'
import plan from './plan'
import record from './record'
import rooms from './rooms'
import route from './route'
import shop from './shop'
import store from './store'
import surface from './surface'
import timetable from './timetable'
import trade from './trade'

export const WORDS = {
  ...common,
  ...trade,
  ...now,
  ...pieces,
  ...examine,
  ...route,
  ...plan,
  ...client,
  ...fault,
  ...line,
  ...timetable,
  ...store,
  ...surface,
  ...shop,
  ...record,
  ...breath,
  ...rooms,
  ...colour,
  ...mixing,
}
