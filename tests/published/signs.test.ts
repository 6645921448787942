import { describe, expect, it } from 'vitest'
import { type Fact, SIGNS, signOf, suspects } from '#core/diagnose'

/**
 * What a restorer would say at each sign, by what is seen and known. Common practice (handbook, signs, causes,
 * questions, mends); grades are the shop's default.
 */
const ROWS: readonly (readonly [sign: string, facts: Fact[], yes: string[], no: string[], cause: string])[] = [
  ['fish-eyes', ['contaminated'], ['same', 'beaded'], [], 'silicone'],
  ['orange-peel', ['sprayed', 'hot', 'dry-air'], ['even', 'dusty'], ['back'], 'air'],
  ['blush', ['damp', 'lacquer', 'sprayed'], ['warm'], ['spots'], 'damp'],
  ['bubbles', ['brushed'], ['can'], ['pores'], 'shaken'],
  ['runs', ['upright'], ['curtain'], ['edge'], 'much'],
  ['nibs', ['old-can', 'oil'], ['soft'], ['dry'], 'can'],
  ['lap-marks', ['large'], ['rows', 'other'], [], 'edge'],
  ['brush-marks', ['cold'], ['sluggish', 'warm'], [], 'cold'],
  ['swirls', ['machine-last'], ['curls'], ['deep'], 'hand'],
  ['blotches', ['drinks-unevenly'], ['figure'], ['joint', 'shape'], 'wood'],
  ['white-specks', ['wiped'], ['streaks', 'gone'], ['pores'], 'dry'],
  ['sticky', ['oil', 'wiped'], ['patches'], ['wiped'], 'excess'],
  ['sticky', ['cold', 'damp'], ['wiped'], ['patches'], 'air'],
  ['wrinkling', ['lacquer', 'old-layers'], ['once', 'different'], [], 'solvent'],
  ['halos', ['old-layers'], ['rings', 'sealer'], ['repair'], 'layers'],
  ['grey-filler', ['filled', 'cut-short'], ['grew'], ['pale'], 'wet'],
  ['sunken-pores', ['open-pores'], [], ['second'], 'once'],
  ['cloudy-filler', ['filled'], ['wiped'], ['warm'], 'film'],
  ['unlike-sample', [], ['bare'], ['part'], 'topcoat'],
  ['other-light', [], ['pair'], ['both'], 'metamer'],
  ['cut-through', ['machine-last'], ['machine'], ['faces'], 'arris'],
  ['rust-specks', ['wool', 'waterborne'], ['threads'], ['nails'], 'wool'],
  ['black-spots', [], ['fuzzy'], ['round'], 'mould'],
  ['white-ring', ['shellac'], ['outline', 'clears'], ['flakes'], 'moisture'],
  ['peeling', ['no-scuff'], ['back', 'old'], ['beads'], 'scuff'],
  ['tape', ['hot', 'taped'], ['glue'], ['film'], 'sun'],
  ['under-tape', ['open-pores'], ['lines'], ['bulge'], 'pores'],
  ['uneven-sheen', ['flatted'], ['last'], ['growth', 'rubbed'], 'stirred'],
  ['raised-grain', ['waterborne'], ['first', 'water'], ['before'], 'water'],
  ['fill-shows', ['filled'], ['lighter'], ['light'], 'colour'],
]
describe('signs and their causes', () => {
  it.each(ROWS)('%s, with %j: yes to %j, no to %j: %s', (sign, facts, yes, no, cause) => {
    const said = [...yes.map(ask => ({ ask, yes: true })), ...no.map(ask => ({ ask, yes: false }))]
    for (const { ask } of said) expect(Object.keys(signOf(sign).asks)).toContain(ask)
    expect(suspects(signOf(sign), { facts, said })[0]!.cause).toBe(cause)
  })
  it('has a row for each of the 29', () => {
    expect(new Set(ROWS.map(r => r[0]))).toEqual(new Set(SIGNS.map(s => s.slug)))
  })
})
