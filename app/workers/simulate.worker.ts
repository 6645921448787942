/** Runs the simulation of the judgement away from the page; tells its progress. */
import { simulate, SIMULATION, type Simulation } from '#core/identify/simulate'

self.onmessage = (event: MessageEvent<Partial<Simulation>>) => {
  const result = simulate({ ...SIMULATION, ...event.data }, share => self.postMessage({ progress: share }))
  self.postMessage({ result })
}
