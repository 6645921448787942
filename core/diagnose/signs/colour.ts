/** Signs in colour, filler and fills. */
import { ask, cause, type Sign } from '../sign'

export const COLOUR_SIGNS: readonly Sign[] = [
  {
    ...{ slug: 'swirls', no: 9, group: 'colour', name: 'Swirl marks under colour' },
    now: 'No topcoat yet: under it they shine.',
    causes: {
      skipped: cause('A grit was skipped, or the ladder began too coarse', 'hand-sand-colour', 'The whole ladder.', {
        more: ['skipped', 'coarse'],
      }),
      hand: cause('The last pass was not by hand', 'hand-sand-colour', 'Last grit by hand, with the grain.', {
        more: ['machine-last'],
      }),
      pressure: cause('Pressure or speed', 'hand-sand-colour', 'A light hand; the machine carries its own weight.', {
        more: ['machine-last'],
      }),
      disc: cause('A worn or loaded disc', 'back-to-wood', 'A fresh disc before it is dull; dust off between grits.'),
    },
    asks: {
      curls: ask('Small curls, all alike?', ['hand', 'disc'], ['pressure']),
      arcs: ask('Wide arcs, deeper in places?', ['pressure'], ['hand']),
      deep: ask('Can a fingernail feel them?', ['skipped', 'pressure', 'disc'], ['hand']),
      seen: ask('Were they there in raking light, or wet-out, before the colour?', ['skipped', 'hand'], []),
      single: ask('A few deep ones in a row, repeating?', ['disc'], ['hand', 'skipped']),
    },
  },
  {
    ...{ slug: 'blotches', no: 10, group: 'colour', name: 'Blotches' },
    now: 'Look at it wet with mild spirit before anything else goes on.',
    causes: {
      wood: cause('Wood that drinks unevenly', 'tone-toward-dark', 'Conditioner, dye or gel on such wood.', {
        more: ['drinks-unevenly'],
      }),
      glue: cause('Glue or old finish left in it', 'back-to-wood', 'Wet-out before colour; glue off to the wood.', {
        more: ['old-layers'],
      }),
      prints: cause('Fingerprints', 'back-to-wood', 'Gloves after the last grit.'),
      sanding: cause('Sanded unevenly', 'back-to-wood', 'The same grits on all of it, counted strokes.', {
        more: ['skipped'],
      }),
    },
    asks: {
      figure: ask('Does it follow the figure or end grain?', ['wood'], ['glue', 'prints']),
      joint: ask('Along a joint, or in runs?', ['glue'], ['wood', 'prints']),
      shape: ask('The shape of a hand or fingers?', ['prints'], ['wood', 'glue', 'sanding']),
      pale: ask('Are the patches paler and glossy?', ['glue'], ['wood', 'prints']),
      edges: ask('Straight limits, where a grit or a machine ended?', ['sanding'], ['wood', 'prints']),
    },
  },
  {
    ...{ slug: 'white-specks', no: 11, group: 'colour', name: 'White specks or streaks in colour' },
    now: 'Do not seal it in.',
    causes: {
      dry: cause('Wiped dry: cloth full, or the gel had set', 'colour-again', 'Small sections; turn the cloth.', {
        more: ['wiped', 'hot', 'dry-air', 'large'],
      }),
      filler: cause(
        'Filler that was not cleaned off',
        'sand-filler-off',
        'Across the grain, in time; sand the haze off.',
        {
          more: ['filled'],
        },
      ),
      dust: cause('Dust in the pores', 'colour-again', 'Vacuum along the pores before colour.', {
        more: ['open-pores'],
      }),
    },
    asks: {
      pores: ask('Only in the pores?', ['dust'], ['dry']),
      streaks: ask('In streaks along the wiping?', ['dry'], ['dust']),
      gone: ask('Do they vanish under the same colour, put on wet?', ['dry', 'dust'], ['filler']),
      hazy: ask('A grey haze around them?', ['filler'], ['dry', 'dust']),
    },
  },
  {
    ...{ slug: 'halos', no: 14, group: 'colour', name: 'Halos, shadows through the coat' },
    now: 'Stop before the next coat.',
    causes: {
      layers: cause(
        'Levelled through several old layers',
        'strip-face',
        'A gate before the promise: seal a spot and look.',
        {
          more: ['old-layers'],
        },
      ),
      repairs: cause('Edges of a repair', 'tone-spots', 'Feather a repair wider; colour under the clear.'),
    },
    asks: {
      rings: ask('Rings like a map, away from repairs?', ['layers'], ['repairs']),
      sealer: ask('Did they show only after the sealer?', ['layers'], []),
      repair: ask('Only where something was filled or set in?', ['repairs'], ['layers']),
    },
  },
  {
    ...{ slug: 'grey-filler', no: 15, group: 'colour', name: 'Grey or pale filler in pores' },
    now: 'No more coats over it.',
    causes: {
      wet: cause('It was not dry under the coat', 'sand-dye-seal', '24 to 72 h, longer in damp air.', {
        more: ['cut-short', 'cold', 'damp', 'filled'],
      }),
      untinted: cause('It was not tinted', 'sand-dye-seal', 'Tint it, and test it under the finish.'),
      surface: cause('Filler worked too long left a film', 'sand-filler-off', 'Off in time, across the grain.', {
        more: ['filled'],
      }),
    },
    asks: {
      grew: ask('Did it turn grey days after the coat?', ['wet'], ['untinted', 'surface']),
      pale: ask('Was it as pale before the coat?', ['untinted', 'surface'], ['wet']),
      between: ask('Between the pores as well?', ['surface'], ['untinted', 'wet']),
    },
  },
  {
    ...{ slug: 'sunken-pores', no: 16, group: 'wood', name: 'Sunken pores or filler' },
    now: 'Wait until it has stopped sinking.',
    causes: {
      once: cause('One fill, too thin', 'fill-again', 'Two fills.', { more: ['open-pores'] }),
      shrinks: cause('The filler shrinks', 'fill-again', 'More body in it; level it after a second fill.', {
        more: ['filled'],
      }),
      early: cause('Finished too soon', 'wait-level-recoat', 'Wait; 24 to 72 h before the finish.', {
        more: ['cut-short'],
      }),
    },
    asks: {
      later: ask('Was it level when the first coat went on?', ['early', 'shrinks'], ['once']),
      second: ask('Was it filled twice?', ['shrinks', 'early'], ['once'], {
        ...{ yes: ['filled-twice'], no: ['filled-once'] },
      }),
      still: ask('Is it sinking still, week by week?', ['early'], ['once']),
    },
  },
  {
    ...{ slug: 'cloudy-filler', no: 17, group: 'colour', name: 'Cloudy patches over filler' },
    now: 'No more coats over it.',
    causes: {
      film: cause('A film of filler was left', 'sand-filler-off', 'Sand to clear wood; look with a wet cloth.', {
        more: ['filled'],
      }),
      moisture: cause('Moisture under the coat', 'mist-retarder', 'Filler and wood dry before the coat.', {
        more: ['damp', 'cut-short', 'wet-wood'],
      }),
    },
    asks: {
      warm: ask('Does gentle warmth clear it?', ['moisture'], ['film']),
      wiped: ask('In sweeps, as it was wiped?', ['film'], ['moisture']),
    },
  },
  {
    ...{ slug: 'unlike-sample', no: 18, group: 'colour', name: 'Colour unlike the sample' },
    now: 'Compare it under its finish, in the light where it will stand.',
    causes: {
      grit: cause('Another grit, or another way of sanding', 'tone-or-more', 'Sample with the same last grit.', {
        more: ['coarse', 'machine-last'],
      }),
      wood: cause('Other wood, or sapwood', 'tone-or-more', 'Sample on wood of the piece; size sapwood by itself.'),
      wipe: cause('Wiped otherwise, or fewer coats', 'tone-or-more', 'Write dwell and wipe down with the sample.', {
        more: ['wiped'],
      }),
      batch: cause('Another batch', 'tone-or-more', 'One batch for a set; weigh it again from the recipe.', {
        more: ['other-hands'],
      }),
      topcoat: cause('The sample had no topcoat', 'none', 'Approve colour under its finish only.'),
    },
    asks: {
      bare: ask('Was the sample without finish, or the piece still without?', ['topcoat'], ['batch', 'grit']),
      lighter: ask('Is the piece paler than the sample?', ['grit', 'wipe'], []),
      part: ask('Only on some boards or edges?', ['wood'], ['batch', 'topcoat', 'grit']),
      pot: ask('Was it another pot than that of the sample?', ['batch'], ['topcoat'], {
        ...{ yes: ['another-pot'], no: ['sample-pot'] },
      }),
      hue: ask('Is the hue another, not only the depth?', ['batch', 'wood', 'topcoat'], ['grit', 'wipe']),
    },
  },
  {
    ...{ slug: 'other-light', no: 19, group: 'colour', name: 'Colour right here, wrong there' },
    now: 'Look at it where it will stand, beside what it shall match.',
    causes: {
      metamer: cause('The match holds in one light only', 'tone-or-more', 'A recipe for several lights.'),
      room: cause('The light of that room', 'none', "Show the sample under the client's own lamp."),
      clear: cause('The warmth of the clear coat', 'none', 'Sample under the coat that the piece gets.'),
    },
    asks: {
      pair: ask('Do piece and sample differ from each other there?', ['metamer'], ['room']),
      both: ask('Do both look alike, and both wrong?', ['room'], ['metamer', 'clear']),
      yellow: ask('Yellower than before its clear coat?', ['clear'], ['metamer', 'room']),
    },
  },
  {
    ...{ slug: 'cut-through', no: 20, group: 'colour', name: 'Cut-through at edges' },
    now: 'Stop sanding there.',
    causes: {
      arris: cause('The arris was sanded', 'recolour-line', 'Edges last, by hand.', { more: ['machine-last'] }),
      coarse: cause('Too coarse', 'recolour-line', 'P400 at edges.', { more: ['coarse'] }),
      thin: cause('There was no film to sand', 'recolour-line', 'A coat more before edges are touched.', {
        more: ['no-scuff'],
      }),
    },
    asks: {
      machine: ask('Was a machine near it?', ['arris', 'coarse'], ['thin'], { yes: ['machine-last'] }),
      scratches: ask('Are scratches to be seen in it?', ['coarse'], ['thin']),
      faces: ask('On flat faces too?', ['thin', 'coarse'], ['arris']),
    },
  },
  {
    ...{ slug: 'under-tape', no: 26, group: 'colour', name: 'Colour under the tape' },
    now: 'Lift the tape now, and look.',
    causes: {
      wet: cause('The coat was too wet', 'thinner-rag', 'Weak first coats.', { more: ['thick'] }),
      pressed: cause('The tape was not pressed down', 'thinner-rag', 'Press it with a nail along the line.'),
      pores: cause('It ran along the pores', 'scrape-line', 'Seal the edge of the tape with clear first.', {
        more: ['open-pores'],
      }),
    },
    asks: {
      lines: ask('In fine lines along the grain?', ['pores'], ['wet', 'pressed']),
      bulge: ask('In bulges here and there?', ['pressed'], ['pores']),
      pooled: ask('Did it pool at the tape?', ['wet'], ['pressed', 'pores']),
    },
  },
  {
    ...{ slug: 'fill-shows', no: 29, group: 'colour', name: 'A fill shows' },
    now: 'Look at it under the finish before it is touched.',
    causes: {
      colour: cause('The fill takes no colour', 'touch-up', 'Tint it before, or set in a patch.', { more: ['filled'] }),
      sheen: cause('It has another sheen', 'touch-up', 'Seal the fill before the finish.', { more: ['flatted'] }),
      bled: cause('Its outline bled', 'touch-up', 'Seal around it; less, and leave it to set.'),
    },
    asks: {
      lighter: ask('Is it paler or darker than the wood around it?', ['colour'], ['sheen']),
      ring: ask('A ring around it?', ['bled'], ['colour', 'sheen']),
      light: ask('To be seen only in raking light?', ['sheen'], ['colour', 'bled']),
    },
  },
]
