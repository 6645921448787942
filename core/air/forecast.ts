/** The room in the coming days by a simple forecast of what was logged, and the hours in which a coat may go on. */
import {
  type AirNeed,
  type AirVerdict,
  type Air,
  DEW_MARGIN_K,
  dewPoint_C,
  judgeAir,
  saturationPressure_hPa,
} from './room'

export interface Reading extends Air {
  at_ms: number
}
export interface HourAir {
  at_ms: number
  air: Air
}
export interface AirForecast {
  hours: HourAir[]
  /** hours of the day that the log has seen; below 12 the day's swing is not known, and the last reading goes on */
  seen: number
}

const HOUR_MS = 3_600_000
/** How fast what is unusual now gives way to what is usual at that hour (shop default, unsourced). */
const FADES_H = 24
const ENOUGH_HOURS = 12

const vapour_hPa = (air: Air): number => air.rh * saturationPressure_hPa(air.temperature_C)
const clamp = (x: number, low: number, high: number) => Math.min(high, Math.max(low, x))

/** The air at another temperature with the same water in it. */
export const heatedTo = (air: Air, temperature_C: number): Air => ({
  temperature_C,
  rh: clamp(vapour_hPa(air) / saturationPressure_hPa(temperature_C), 0.01, 1),
})

/**
 * A simple forecast: the usual day of the last readings (mean temperature and water in the air by the hour), and what
 * is unusual now fading over a day. Water is carried as vapour pressure, so that a room that cools at night grows
 * damp. Null without any reading. `hourOf` gives the local hour 0–23 of a moment.
 */
export function forecastAir(
  readings: readonly Reading[],
  from_ms: number,
  hours: number,
  hourOf: (at_ms: number) => number,
): AirForecast | null {
  const past = readings.filter(r => r.at_ms <= from_ms)
  const last = past.at(-1)
  if (!last) return null
  const byHour = Array.from({ length: 24 }, () => ({ n: 0, t: 0, e: 0 }))
  for (const r of past) {
    const slot = byHour[hourOf(r.at_ms)]!
    slot.n++
    slot.t += r.temperature_C
    slot.e += vapour_hPa(r)
  }
  const seen = byHour.filter(s => s.n > 0).length
  const known = seen >= ENOUGH_HOURS
  const nearest = byHour.map((_, hour) =>
    [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]
      .flatMap(d => [byHour[(hour + d) % 24]!, byHour[(hour + 24 - d) % 24]!])
      .find(s => s.n > 0)!,
  )
  const usual = (at_ms: number) => {
    const slot = nearest[hourOf(at_ms)]!
    return known ? { t: slot.t / slot.n, e: slot.e / slot.n } : { t: last.temperature_C, e: vapour_hPa(last) }
  }
  const then = usual(last.at_ms)
  const off = { t: last.temperature_C - then.t, e: vapour_hPa(last) - then.e }
  const first = Math.ceil(from_ms / HOUR_MS) * HOUR_MS
  return {
    seen,
    hours: Array.from({ length: hours }, (_, i) => {
      const at_ms = first + i * HOUR_MS
      const fade = Math.exp(-(at_ms - last.at_ms) / HOUR_MS / FADES_H)
      const here = usual(at_ms)
      const temperature_C = here.t + off.t * fade
      return {
        at_ms,
        air: { temperature_C, rh: clamp((here.e + off.e * fade) / saturationPressure_hPa(temperature_C), 0.01, 1) },
      }
    }),
  }
}

export interface CoatingHour {
  at_ms: number
  air: Air
  severity: AirVerdict['severity']
  open: boolean
  why: string | null
}

/**
 * For every forecast hour: may this product go on? The film stays wet for `wet_h` hours, and none of them may stop it.
 * `isOpen` tells whether anybody is there.
 */
export function coatingHours(
  need: AirNeed,
  forecast: AirForecast,
  wet_h: number,
  isOpen: (at_ms: number) => boolean,
): CoatingHour[] {
  const judged = forecast.hours.map(h => judgeAir(need, h.air))
  return forecast.hours.map((h, i) => {
    const stops = judged.slice(i, i + 1 + wet_h).findIndex(v => v.severity === 'stop')
    const at = stops < 0 ? judged[i]! : judged[i + stops]!
    const later = stops > 0 ? ` ${stops} h later, while it is still wet` : ''
    return {
      at_ms: h.at_ms,
      air: h.air,
      open: isOpen(h.at_ms),
      severity: stops < 0 ? judged[i]!.severity : 'stop',
      why: at.lines[0] ? `${at.lines[0]}${later}` : null,
    }
  })
}

/** Spans of hours that are open and not stopped, as moments from and to. */
export function coatingSpans(
  hours: readonly CoatingHour[],
): { from_ms: number; to_ms: number; severity: 'ok' | 'warn' }[] {
  const spans: { from_ms: number; to_ms: number; severity: 'ok' | 'warn' }[] = []
  for (const h of hours) {
    if (!h.open || (h.severity !== 'ok' && h.severity !== 'warn')) continue
    const last = spans.at(-1)
    if (last && last.to_ms === h.at_ms && last.severity === h.severity) last.to_ms += HOUR_MS
    else spans.push({ from_ms: h.at_ms, to_ms: h.at_ms + HOUR_MS, severity: h.severity })
  }
  return spans
}

/** What a shop's heater and drier do in an hour, and how a retarder slows drying (shop defaults, unsourced). */
export const HEAT_K_PER_H = 2
export const DRY_HPA_PER_H = 1
export const RETARDER_SLOWS = 1.5
/** A retarder leaves about 2 K of cooling where fast thinner takes 5 (common practice). */
export const RETARDED_COOLING_K = 2

export interface Help {
  kind: 'heat' | 'dry' | 'retarder' | 'wait'
  hours: number
  to_C: number | null
  to_rh: number | null
  makes: 'ok' | 'warn'
}

const passes = (severity: AirVerdict['severity']): severity is 'ok' | 'warn' => severity === 'ok' || severity === 'warn'
const RANK = { ok: 0, warn: 1, stop: 2, unknown: 3 } as const

/**
 * What would help where the air stops a coat, or warns: heat, dry, retard, or wait; each with the hours it takes and
 * what it makes of the verdict. Heating keeps the water in the air; drying keeps its temperature. A retarder slows the
 * drying of `dry_h` hours.
 */
export function whatHelps(
  need: AirNeed,
  air: Air,
  dry_h: number,
  ahead: readonly CoatingHour[],
  now_ms: number,
): Help[] {
  const now = judgeAir(need, air).severity
  if (now === 'ok' || now === 'unknown') return []
  const better = (v: AirVerdict) => passes(v.severity) && RANK[v.severity] < RANK[now]
  const helps: Help[] = []
  const top = need.limitMax_C ?? need.usual_C[1]
  for (let t = Math.floor(air.temperature_C) + 1; t <= Math.min(top, need.usual_C[1]); t++) {
    const v = judgeAir(need, heatedTo(air, t))
    if (better(v)) {
      helps.push({
        kind: 'heat',
        hours: (t - air.temperature_C) / HEAT_K_PER_H,
        to_C: t,
        to_rh: heatedTo(air, t).rh,
        makes: v.severity as 'ok' | 'warn',
      })
      break
    }
  }
  for (let pct = Math.ceil(air.rh * 100) - 1; pct >= need.usualRh[0] * 100; pct--) {
    const dry = { temperature_C: air.temperature_C, rh: pct / 100 }
    const v = judgeAir(need, dry)
    if (better(v)) {
      helps.push({
        kind: 'dry',
        hours: (vapour_hPa(air) - vapour_hPa(dry)) / DRY_HPA_PER_H,
        to_C: null,
        to_rh: dry.rh,
        makes: v.severity as 'ok' | 'warn',
      })
      break
    }
  }
  if (need.cooling_K > RETARDED_COOLING_K) {
    const v = judgeAir({ ...need, cooling_K: RETARDED_COOLING_K }, air)
    if (better(v))
      helps.push({
        kind: 'retarder',
        hours: dry_h * (RETARDER_SLOWS - 1),
        to_C: null,
        to_rh: null,
        makes: v.severity as 'ok' | 'warn',
      })
  }
  const next = ahead.find(h => h.open && h.at_ms > now_ms && passes(h.severity) && RANK[h.severity] < RANK[now])
  if (next)
    helps.push({
      kind: 'wait',
      hours: (next.at_ms - now_ms) / HOUR_MS,
      to_C: null,
      to_rh: null,
      makes: next.severity as 'ok' | 'warn',
    })
  return helps.sort((a, b) => RANK[a.makes] - RANK[b.makes] || a.hours - b.hours)
}

/** How far the wet film stays above what spoils it, K; below nought it turns cloudy. */
export const blushMargin_K = (need: AirNeed, air: Air, surface_C = air.temperature_C): number =>
  surface_C - need.cooling_K - dewPoint_C(air) - DEW_MARGIN_K
