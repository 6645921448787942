/** The condition report of a piece as a paper; with a plan, what is going to be done about it. */
import { outline_mm } from '../piece'
import type { Report, ReportFinding } from '../report'
import { blocks } from '../safety'
import { dayWords } from '../timetable/days'
import { saidSlug } from '../units'
import { facesDrawing } from './faces'
import type { Paper, PaperPart } from './paper'
import { heading, listUnder, small, under } from './parts'

/** Width of A4 and Letter between their margins, whichever is less, points. */
const WIDTH = 499
type Days = (iso: string) => string
const percent = (p: number) => `${Math.round(p * 100)} %`
/** When it was made, where the years alone would not be a sentence. */
const MADE: Record<string, string> = {
  'before-1850': 'before 1850',
  'after-1990': 'after 1990',
  'unknown': 'at a time not known',
}
const SEVERITY: Record<string, string> = { forbidden: 'Forbidden', stop: 'Stop', warn: 'Take care', note: 'Note' }
const JUDGED: Record<string, string> = {
  'contradictory': 'The readings contradict each other.',
  'test-again': 'Not sure enough to rely on.',
}
const STANDING = { open: 'not ruled out, counted as yes', confirmed: 'found', cleared: 'cleared' }

const line = (lead: string, text = '', tone: 'plain' | 'stop' = 'plain'): PaperPart => ({
  kind: 'text',
  lead,
  text: text.trim(),
  tone,
})

const mindParts = (r: Report) =>
  r.verdicts.flatMap(v => [
    line(`${SEVERITY[v.severity]}: ${v.says}.`, `${v.reasons.join(' ')} ${v.mend}`, blocks(v) ? 'stop' : 'plain'),
    ...(v.overruled ? [small(`Overruled by ${v.overruled.by}: ${v.overruled.word}`)] : []),
  ])

function placeSaid({ place }: ReportFinding): string {
  if (place.shape === 'unplaced') return 'not drawn'
  if (place.shape === 'face') return 'the whole face'
  return `${Math.round(place.x_mm)}, ${Math.round(place.y_mm)} mm from the corner`
}
const findingParts = (r: Report): PaperPart[] => [
  ...(r.faces.length ? [facesDrawing(r, WIDTH)] : []),
  ...r.findings.map(f => {
    const face = r.faces.find(x => x.id === f.faceId)
    return line(
      `${f.number}  ${saidSlug(f.kind)}, grade ${f.grade}.`,
      `${face?.part ?? ''}, ${face?.name ?? ''}; ${placeSaid(f)}; ${f.wish}.${f.note ? ` ${f.note}.` : ''}` +
        (f.photographs.length ? ` Photographs: ${f.photographs.length}.` : ''),
    )
  }),
  ...(r.findings.length ? [] : [small('Nothing was found.')]),
  ...r.faces.map(f =>
    small(
      `${f.part}, ${f.name}: ${f.copies > 1 ? `${f.copies} × ` : ''}${f.length_typed} × ${f.width_typed} ` +
        `(${Math.round(outline_mm(f).w)} × ${Math.round(outline_mm(f).h)} mm), ${f.species}, ` +
        `${f.substrate}${f.veneer_mm ? ` ${f.veneer_mm} mm` : ''}, finish ${f.finishGroup}`,
    ),
  ),
]

function finishParts(r: Report, day: Days): PaperPart[] {
  const said = r.conclusions.map(c => {
    const tested = r.tests.some(t => t.group === c.group && t.layer === c.layer)
    const read = tested ? `${saidSlug(c.finish)}, ${percent(c.certainty)} sure` : 'not tested'
    const found = c.overruled
      ? `${saidSlug(c.overruled.finish)}, by ${c.overruled.by}'s word (${c.overruled.word})`
      : read
    return line(
      `Finish ${c.group}${c.layer > 1 ? `, layer ${c.layer}` : ''}: ${found}.`,
      tested ? `Second guess ${saidSlug(c.second)}. ${JUDGED[c.verdict] ?? ''}` : '',
    )
  })
  const tests = r.tests.map(t =>
    small(
      `${t.group}${t.layer > 1 ? t.layer : ''} ${saidSlug(t.test)}: ${t.result}. ` +
        `${t.spot ? `${t.spot}. ` : ''}${t.by}, ${day(t.at)}`,
    ),
  )
  const about = 'Certainty is worked out from shop default likelihoods and is never called more than 95 %.'
  return [...said, ...tests, small(about)]
}

const hazardParts = (r: Report, day: Days): PaperPart[] =>
  r.hazards.length
    ? r.hazards.map(h =>
        line(
          `${h.name}: ${STANDING[h.standing]}.`,
          `${h.why} ${h.evidence.map(e => `${e.answer}: ${e.method} (${e.by}, ${day(e.at)}).`).join(' ')}`,
        ),
      )
    : [small('None was raised.')]

function moistureParts(r: Report, day: Days): PaperPart[] {
  return r.moisture.map(m => {
    const face = r.faces.find(f => f.id === m.faceId)
    const days = m.likely_d ? `, about ${Math.ceil(m.likely_d)} days` : ''
    const dry = m.verdict === 'wait' ? `Too wet to finish${days}.` : 'Dry enough.'
    const air =
      m.equilibrium_pct === null ? 'The air was not known.' : `Equilibrium ${m.equilibrium_pct.toFixed(1)} %. ${dry}`
    return line(`${face?.part ?? ''}, ${face?.name ?? ''}: ${m.reading_pct} %.`, `${air} ${m.by}, ${day(m.at)}`)
  })
}
const itemParts = (r: Report) =>
  r.items.map(i =>
    line(
      `${i.mark}  ${i.count} × ${i.name}.`,
      `${i.keep ? 'Kept: it is not sanded away.' : saidSlug(i.state)}${i.place ? `, in ${i.place}` : ''}` +
        `${i.out ? `, ${i.out} off, ${i.back ?? 0} back` : ''}. ${i.note}`,
    ),
  )
const patchParts = (r: Report) =>
  r.patches.map(p =>
    line(
      `${saidSlug(p.method)}: ${p.minutes} min on ${Math.round(p.length_mm)} × ${Math.round(p.width_mm)} mm, ` +
        `${saidSlug(p.result)}.`,
      `Scaled to the piece: ${Math.round(p.piece_min)} min. ${p.note}`,
    ),
  )
function photographParts(r: Report, day: Days): PaperPart[] {
  const pictures = r.photographs.flatMap(p =>
    p.data_base64
      ? {
          jpeg_base64: p.data_base64,
          says: `${p.caption || 'Photograph'}${p.taken_at ? `, ${day(p.taken_at)}` : ''}`,
        }
      : [],
  )
  return pictures.length ? [{ kind: 'pictures', pictures }] : []
}
const walkParts = (r: Report, day: Days) =>
  r.walk.map(w =>
    small(
      `${w.key.includes('|') ? `${w.key.split('|')[1]}: ` : ''}${w.asks} ` +
        `${w.options.map(saidSlug).join(', ')}. ${w.by}, ${day(w.at)}`,
    ),
  )

/** What is planned for a piece, for whoever owns or insures it. */
export interface PlanSaid {
  /** layers from the wood upward, in everyday words */
  surface: readonly string[]
  section: (PaperPart & { kind: 'drawing' }) | null
  stages: readonly { says: string; steps: readonly string[] }[]
  /** what may fail, in words; null: nothing is foreseen */
  gate: string | null
  /** days in words; '': not known */
  readyLikely: string
  readySafe: string
  cautions: readonly string[]
}
const planParts = (p: PlanSaid): PaperPart[] => [
  heading('What is planned'),
  ...(p.surface.length ? [{ kind: 'facts' as const, rows: [['Surface', p.surface.join(' · ')]] as const }] : []),
  ...(p.section ? [p.section] : []),
  {
    kind: 'table',
    says: 'Stages of the work, with their steps in order',
    columns: [
      { head: 'Stage', share: 0.28 },
      { head: 'Steps', share: 0.72 },
    ],
    rows: p.stages.map(s => [s.says, s.steps.join('; ')]),
  },
  ...(p.gate ? [line('This way may fail:', `${p.gate}. Then we ask before we go on.`)] : []),
  ...(p.readyLikely ? [line('Ready:', `${p.readyLikely}; ${p.readySafe} at the latest.`)] : []),
  ...listUnder('Cautions of this work', p.cautions),
]

/**
 * @param plan null: the report says only what was found
 * @param zone IANA name of the zone whose days it is dated by
 */
export function conditionPaper(r: Report, plan: PlanSaid | null, zone: string): Paper {
  const { piece } = r
  const day: Days = iso => dayWords(iso, zone)
  const title = `${plan ? 'Condition and plan' : 'Condition report'}: ${piece.name}`
  return {
    title,
    from: [r.shop, `${day(r.made_at)}${r.name === 'now' ? '' : `, "${r.name}"`}`],
    foot: `${r.shop} · piece ${piece.id}`,
    parts: [
      { kind: 'text', text: `For ${piece.client}`, tone: 'strong' },
      small(
        `Taken in ${day(piece.taken_in_at)}. Made ${MADE[piece.period] ?? piece.period}; refinished before: ` +
          `${piece.refinished}.${piece.keep_patina ? ' The patina is kept.' : ''} ${piece.note}`,
      ),
      ...under('What to mind', mindParts(r)),
      heading('Faces and findings'),
      ...findingParts(r),
      heading('The finish'),
      ...finishParts(r, day),
      heading('Hazards'),
      ...hazardParts(r, day),
      ...under('Moisture', moistureParts(r, day)),
      ...under('Parts, hardware and marks', itemParts(r)),
      ...under('Timed patches', patchParts(r)),
      ...under('Photographs', photographParts(r, day)),
      ...(plan ? planParts(plan) : []),
      heading('What was not examined'),
      ...(r.notExamined.length ? r.notExamined.map(small) : [small('Nothing was left out.')]),
      ...under('The walk round the piece', walkParts(r, day)),
      small('Cautions defer to safety data sheets, local rules and licensed practice.'),
    ],
  }
}
