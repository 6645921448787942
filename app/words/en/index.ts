/** Every string of the interface, a file for each place. What core says stands in core, beside the data it belongs to. */
import common from './common'
import trade from './trade'
import now from './now'
import pieces from './pieces'
import examine from './examine'
import route from './route'
import plan from './plan'
import client from './client'
import timetable from './timetable'
import store from './store'
import shop from './shop'
import colour from './colour'
import mixing from './mixing'

export const WORDS = {
  ...common,
  ...trade,
  ...now,
  ...pieces,
  ...examine,
  ...route,
  ...plan,
  ...client,
  ...timetable,
  ...store,
  ...shop,
  ...colour,
  ...mixing,
}
