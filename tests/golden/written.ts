/** A piece's plan as lines of text: a change of what the application works out is seen as a change of these lines. */
import { type Context, usualContext } from '#core/context'
import { gritName } from '../../core/abrasives'
import { cautionsOfStep } from '#core/acts'
import { judgeRoutes } from '#core/ground'
import type { House } from '#core/house'
import type { Facts } from '#core/piece'
import { loopsOf, notesOf, type Plan, workOutPlan, worstPlan } from '#core/plan'
import { judgePlan } from '#core/rules'
import { surfaceOf } from '#core/section'
import { round } from '#core/units'
import { at, built, hours, type Picked } from '../facts'

const RATES = { hour_minor: 65_000, materialMarkup_bp: 2_000, tax_bp: 2_500 }

const planLines = (plan: Plan, context: Context): string[] => [
  ...plan.steps.map(s =>
    [
      s.key,
      s.title,
      `faces ${s.faces.join(',')}`,
      s.product,
      s.grits.map(gritName).join(' '),
      s.method,
      s.passes > 1 ? `× ${s.passes}` : '',
      `${s.attended_min} min`,
      s.amount_ml === null ? '' : `${round(s.amount_ml, 1)} ml`,
      cautionsOfStep(s, context).join(' '),
      s.gate ? `gate ${s.gate.slug} ${s.gate.fallback ?? 'again'} ${round(s.gate.chance, 3)}` : '',
    ]
      .filter(Boolean)
      .join(' · '),
  ),
  '',
  ...plan.waits
    .filter(w => w.kind !== 'order')
    .map(
      w =>
        `${w.from} > ${w.to}: ${w.kind} ${w.min} ${round(w.likely, 1)} ` +
        `${round(w.safe, 1)}${w.max === null ? '' : ` most ${w.max}`}${w.hard ? ' hard' : ''}`,
    ),
]

/** Plan, waits, verdicts, loops and what each route comes to. */
export function written(name: string, facts: Facts, picked: Picked, house: House): string {
  const context = usualContext(facts, { house })
  const choice = built(context, picked)
  const plan = workOutPlan(context, choice)
  const verdicts = judgePlan({ context, choice, ...plan })
  const worst = worstPlan(plan, context, choice)
  const section = surfaceOf(context, plan.steps)
  const routes = judgeRoutes({ context, choice, rates: RATES, hours, now_ms: at('2026-11-23T10:30') })
  return [
    `# ${name}: ${picked.route}, ${picked.finish}, ${picked.colour}`,
    '',
    ...planLines(plan, context),
    '',
    ...plan.budgets.map(b => `veneer ${b.group.key}: ${b.budget.verdict} ${Math.round(b.budget.takes_um)}`),
    ...verdicts.map(v => `${v.severity} ${v.rule} at ${v.step}: ${v.says}`),
    '',
    ...plan.steps.flatMap(s =>
      notesOf(s, context, plan.waits)
        .filter(n => n.startsWith('About '))
        .map(n => `${s.key}: ${n}`),
    ),
    ...loopsOf(plan.steps, context).map(l => `loop ${l.step}: ${l.rounds} to ${l.worst}, ${l.again.join(' ')}`),
    `at worst ${worst.steps.length} steps, ${worst.steps.reduce((n, s) => n + s.attended_min, 0)} min`,
    section
      ? `section: ${section.films.map(l => `${l.slug} ${round(l.um, 1)}`).join(' | ')} · ` +
        `${section.colours.map(c => c.slug).join(' | ')}`
      : 'no section',
    '',
    ...routes.verdicts.map(
      r =>
        `${r.route === routes.advised ? '* ' : ''}${r.route}: ${r.standing}, ${round(r.chance, 2)}, likely ` +
        `${r.likely.total_minor} in ${r.likelyDays} d, worst ${r.worst.total_minor} in ${r.worstDays} d, ` +
        `expected ${r.expected.total_minor}`,
    ),
    '',
  ].join('\n')
}
