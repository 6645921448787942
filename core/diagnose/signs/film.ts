/** Signs in a film as it is laid and dries. */
import { ask, cause, type Sign } from '../sign'

export const FILM_SIGNS: readonly Sign[] = [
  {
    ...{ slug: 'fish-eyes', no: 1, group: 'film', name: 'Fish eyes, craters' },
    now: 'Stop: more coats make it worse. Still wet: wipe all of it off with its own solvent.',
    causes: {
      silicone: cause(
        'Silicone or wax in the wood or the film',
        'wash-and-barrier',
        'A barrier from the start; no silicone in the house.',
        { more: ['contaminated', 'old-layers'] },
      ),
      line: cause('Oil or water in the air line', 'wash-and-barrier', 'Drain the line, dry the air before the gun.', {
        more: ['sprayed'],
        less: ['brushed', 'wiped'],
      }),
      hands: cause(
        'Hands, or resin of a tack cloth',
        'sand-and-recoat',
        'Gloves after the last wipe; tack cloth laid on lightly, not pressed.',
      ),
    },
    asks: {
      same: ask('Do they come in the same places with each coat?', ['silicone'], ['line']),
      beaded: ask('Did water bead there before?', ['silicone'], ['line', 'hands'], { yes: ['contaminated'] }),
      sprayed: ask('Only in coats that were sprayed?', ['line'], ['silicone', 'hands'], { no: ['brushed', 'wiped'] }),
      prints: ask('In the shape of fingers, or along wiped lines?', ['hands'], ['line', 'silicone']),
    },
  },
  {
    ...{ slug: 'orange-peel', no: 2, group: 'film', name: 'Orange peel' },
    now: 'Let it cure before anything levels it.',
    causes: {
      thick: cause(
        'Too thick, or too little reducer',
        'level-and-recoat',
        'Try on a card; keep the set-up that works.',
        {
          more: ['sprayed', 'thick'],
        },
      ),
      gun: cause(
        'Gun too far away, too little air, or cold product',
        'level-and-recoat',
        'Distance and air on a card first; product at room warmth.',
        { more: ['sprayed', 'cold'], less: ['brushed', 'wiped'] },
      ),
      air: cause('Hot, dry air', 'level-and-recoat', 'A slower reducer, or a cooler hour.', {
        more: ['hot', 'dry-air'],
        less: ['cold', 'damp'],
      }),
      silicone: cause('Contamination', 'wash-and-barrier', 'A barrier from the start; no silicone in the house.', {
        more: ['contaminated'],
      }),
    },
    asks: {
      even: ask('Fine, and the same all over?', ['thick', 'air'], ['silicone']),
      near: ask('Better where the gun came closer?', ['gun'], ['silicone', 'thick'], { no: ['brushed', 'wiped'] }),
      back: ask('Does it come back after levelling?', ['silicone'], ['thick', 'gun', 'air']),
      dusty: ask('Did it set before it could flow, dry and rough to the hand?', ['gun', 'air'], ['thick', 'silicone']),
    },
  },
  {
    ...{ slug: 'blush', no: 3, group: 'film', name: 'Blush, milky film' },
    now: 'Stop. Dry and warm the air before anything else goes on.',
    causes: {
      damp: cause(
        'Damp air on a cooling film',
        'mist-retarder',
        'Keep the limits of the air; retarder when it is damp.',
        {
          more: ['damp', 'lacquer', 'shellac'],
          less: ['dry-air'],
        },
      ),
      fast: cause('Thinner too fast in the heat', 'mist-retarder', 'A slower thinner, or a cooler hour.', {
        more: ['hot', 'lacquer'],
        less: ['cold'],
      }),
      water: cause('Water in the air line', 'mist-retarder', 'Drain the line, dry the air before the gun.', {
        more: ['sprayed'],
        less: ['brushed', 'wiped'],
      }),
      wet: cause('Waterborne and still wet: that is usual', 'wait', 'Milky is usual until it is dry.', {
        more: ['waterborne'],
        less: ['lacquer', 'shellac'],
      }),
    },
    asks: {
      warm: ask("Does it clear under a hair dryer's gentle warmth?", ['damp', 'fast', 'wet'], ['water']),
      spots: ask('In drops and spots rather than all over?', ['water'], ['damp', 'fast', 'wet']),
      wet: ask('Is it still soft or wet?', ['wet'], ['water']),
      dew: ask('Was it raining, or the wood colder than the room?', ['damp'], ['fast']),
    },
  },
  {
    ...{ slug: 'bubbles', no: 4, group: 'film', name: 'Bubbles, pinholes' },
    now: 'Leave it until it has cured: a soft bubble tears open.',
    causes: {
      shaken: cause('The can was shaken', 'sand-and-recoat', 'Stir, pour slowly, let it stand.', { more: ['brushed'] }),
      worked: cause('Foam brush, or worked too long', 'sand-and-recoat', 'A stocking over the pad; fewer strokes.', {
        more: ['brushed', 'wiped'],
        less: ['sprayed'],
      }),
      thick: cause('Coat too thick, no time to flash', 'sand-and-recoat', 'Thin coats, each left to flash.', {
        more: ['thick', 'sprayed', 'cut-short'],
      }),
      hot: cause('Hot wood or sun: air leaves the pores', 'sand-and-recoat', 'Cool, shaded wood; a sealer first.', {
        more: ['hot', 'open-pores'],
      }),
      reacts: cause(
        'Two-part product that met moisture',
        'sand-and-recoat',
        'Dry wood and dry air for two-part products.',
        {
          more: ['two-part', 'damp', 'wet-wood'],
          less: ['dry-air'],
        },
      ),
    },
    asks: {
      pores: ask('Only over pores?', ['hot'], ['shaken', 'worked', 'thick']),
      sun: ask('Was the wood in the sun, or brought in from the cold?', ['hot'], ['shaken', 'reacts']),
      can: ask('Were there bubbles in the pot already?', ['shaken'], ['hot', 'thick', 'reacts']),
      deep: ask('Deep in the film, where it is thickest?', ['thick', 'reacts'], ['shaken']),
      strokes: ask('Along the strokes of the brush?', ['worked'], ['hot', 'thick', 'reacts']),
    },
  },
  {
    ...{ slug: 'runs', no: 5, group: 'film', name: 'Runs, sags' },
    now: 'Wet: brush it out or lift it off. Dry: wait until it is hard.',
    causes: {
      much: cause('Too much went on', 'level-run', 'Less, and look back along the edges after a few minutes.', {
        more: ['thick', 'upright'],
      }),
      thin: cause(
        'Too thin, or too slow to set',
        'level-run',
        'Thin by the label; a faster reducer on upright faces.',
        {
          more: ['cold', 'upright'],
          less: ['hot'],
        },
      ),
      edges: cause('Edges were overloaded', 'level-run', 'Tip off the edges; begin inside the face.'),
    },
    asks: {
      edge: ask('Along edges and corners?', ['edges'], ['thin']),
      curtain: ask('In wide curtains?', ['much'], ['edges']),
      everywhere: ask('On each upright face that got the same mix?', ['thin'], ['edges', 'much']),
    },
  },
  {
    ...{ slug: 'nibs', no: 6, group: 'film', name: 'Nibs, dust' },
    now: 'Let it dry: what is picked out wet leaves a hole.',
    causes: {
      room: cause('Dust of the room or clothes', 'pass-and-recoat', 'Settle the room, wet the floor, clean clothes.'),
      can: cause('Skin or lumps in the can', 'pass-and-recoat', 'Strain; close the can; pour out what the job takes.', {
        more: ['old-can', 'old-pot', 'oil'],
      }),
      brush: cause('The brush', 'pass-and-recoat', 'A brush washed and wrapped airtight between coats.', {
        more: ['brushed'],
        less: ['sprayed'],
      }),
      spray: cause('Settled spray', 'pass-and-recoat', 'Upper faces last; let the fan run on.', {
        more: ['sprayed'],
        less: ['brushed', 'wiped'],
      }),
    },
    asks: {
      soft: ask('Soft and clear when pressed?', ['can'], ['room', 'spray']),
      upper: ask('Only on faces that look up?', ['room', 'spray'], ['can', 'brush']),
      dry: ask('Does it feel like fine sandpaper, all alike?', ['spray'], ['can', 'brush']),
      hairs: ask('Are there hairs, or specks of an old colour?', ['brush'], ['spray', 'can']),
    },
  },
  {
    ...{ slug: 'lap-marks', no: 7, group: 'film', name: 'Lap marks' },
    now: 'Do not work it on: it is setting.',
    causes: {
      edge: cause('The wet edge was lost', 'sand-and-recoat', 'Rows so short that each is met while wet.', {
        more: ['large'],
      }),
      large: cause('The face is too large for one pair of hands', 'sand-and-recoat', 'Sections, or two people.', {
        more: ['large'],
      }),
      air: cause('Hot air, or too fast a reducer', 'sand-and-recoat', 'An extender or a slower reducer.', {
        more: ['hot', 'dry-air'],
        less: ['cold', 'damp'],
      }),
      strokes: cause('Too many strokes', 'sand-and-recoat', 'Lay it on, tip it off once, leave it.', {
        more: ['brushed'],
      }),
    },
    asks: {
      rows: ask('Darker or thicker stripes where rows meet?', ['edge', 'large'], ['strokes']),
      pulled: ask('Did the brush begin to drag before the face was done?', ['air', 'large'], ['strokes']),
      other: ask('Did small faces of the same mix come out well?', ['large', 'edge'], ['air', 'strokes']),
    },
  },
  {
    ...{ slug: 'brush-marks', no: 8, group: 'film', name: 'Brush marks' },
    now: 'Leave it: going back into a setting film makes it worse.',
    causes: {
      brush: cause(
        'A poor brush, or one that does not suit the base',
        'level-and-recoat',
        'Natural hair for oil, synthetic for water.',
        {
          more: ['brushed'],
        },
      ),
      thick: cause('The product is too thick', 'level-and-recoat', 'Thin by the label; a pad instead.', {
        more: ['old-can', 'old-pot', 'thick'],
      }),
      worked: cause('Worked too long', 'level-and-recoat', 'Less working.', { more: ['hot', 'dry-air'] }),
      cold: cause('Cold product or room', 'level-and-recoat', 'Product and room at the warmth of its label.', {
        more: ['cold'],
        less: ['hot'],
      }),
    },
    asks: {
      sluggish: ask('Does it leave the stirring stick in strings?', ['thick', 'cold'], ['brush', 'worked']),
      ridges: ask('Deep ridges, each a bristle wide?', ['brush', 'thick'], ['worked']),
      middle: ask('Worse where the brush went over again?', ['worked'], ['cold', 'brush']),
      warm: ask('Did it flow out in a warmer room?', ['cold'], ['brush', 'worked']),
    },
  },
  {
    ...{ slug: 'sticky', no: 12, group: 'film', name: 'Sticky, does not dry' },
    now: 'Nothing goes over it.',
    causes: {
      excess: cause(
        'What was left over was not wiped off',
        'wipe-and-wait',
        'Wipe all of it; look again after an hour.',
        {
          more: ['oil', 'wiped', 'thick'],
        },
      ),
      air: cause('Cold, damp, or no moving air', 'wait', 'Air within the limits of the label, moving.', {
        more: ['cold', 'damp'],
        less: ['hot', 'dry-air'],
      }),
      wood: cause(
        'Oily wood, wax or silicone under it',
        'off-and-barrier',
        'Solvent wipe and a barrier on such wood.',
        {
          more: ['oily-wood', 'contaminated', 'old-layers'],
        },
      ),
      can: cause('An old can', 'wipe-and-wait', 'Look at the date; try a can on card before it goes on a piece.', {
        more: ['old-can'],
      }),
      thick: cause('Coat too thick', 'wait', 'Thin coats.', { more: ['thick'] }),
      mixed: cause('Mixed wrongly', 'off-and-anew', 'Write the ratio down as it is weighed.', {
        more: ['two-part', 'other-hands', 'old-pot'],
      }),
    },
    asks: {
      patches: ask('Only in patches?', ['wood', 'excess'], ['air', 'can', 'mixed']),
      others: ask('Do other pieces from this can dry?', ['wood', 'thick', 'excess'], ['can', 'mixed', 'air']),
      skin: ask('A skin above, soft below?', ['thick'], ['mixed', 'can']),
      ratio: ask('Is the ratio of the mix written down, and right?', ['air', 'wood', 'excess'], ['mixed'], {
        ...{ yes: ['weighed-right'], no: ['weighed-wrong'] },
      }),
      wiped: ask('Was all that stood on it wiped off?', ['air', 'wood', 'can'], ['excess']),
    },
  },
  {
    ...{ slug: 'wrinkling', no: 13, group: 'film', name: 'Wrinkling, lifting' },
    now: 'Stop, and let it harden.',
    causes: {
      solvent: cause(
        'A strong solvent over a soft or uncured film',
        'off-and-barrier',
        'A barrier, and a milder product.',
        {
          more: ['lacquer', 'cut-short', 'old-layers'],
        },
      ),
      window: cause(
        'Coated again within the window that forbids it',
        'off-and-recoat',
        'Keep the window of the label.',
        {
          more: ['too-late', 'cut-short'],
        },
      ),
      skin: cause('A thick skin over what is still wet', 'off-and-recoat', 'Thin coats, each dry before the next.', {
        more: ['thick', 'oil', 'hot'],
      }),
    },
    asks: {
      once: ask('Did it come at once, within minutes?', ['solvent', 'window'], ['skin']),
      pools: ask('Where it stood thickest?', ['skin'], ['solvent']),
      different: ask('Is what lies under it of another kind?', ['solvent'], ['window', 'skin'], {
        ...{ yes: ['over-another'], no: ['over-the-same'] },
      }),
      early: ask('Did the coat before it lie for days, yet not for the full cure?', ['window'], ['skin']),
    },
  },
  {
    ...{ slug: 'uneven-sheen', no: 27, group: 'film', name: 'Too glossy, too dull, uneven sheen' },
    now: 'Judge it dry, and in raking light.',
    causes: {
      stirred: cause(
        'Flatting was not stirred, or had settled',
        'sheen-coat',
        'Stir to the bottom, and again between.',
        {
          more: ['flatted'],
          less: ['gloss'],
        },
      ),
      film: cause('Film too thick or too thin', 'sheen-coat', 'One last coat for all faces, of one strength.', {
        more: ['thick'],
      }),
      rubbed: cause('Rubbed unevenly', 'rub-whole', 'Rub the whole face, with the grain, half against half.'),
      damp: cause('Damp while it dried', 'sheen-coat', 'Air within the limits.', { more: ['damp'] }),
      sealed: cause('Sealed unevenly', 'sheen-coat', 'One more coat of sealer where it drinks.', {
        more: ['open-pores', 'drinks-unevenly'],
      }),
    },
    asks: {
      all: ask('All over, and the same?', ['stirred', 'film'], ['rubbed', 'sealed']),
      rubbed: ask('Was it rubbed out?', ['rubbed'], ['sealed', 'damp'], { yes: ['rubbed-out'], no: ['not-rubbed'] }),
      growth: ask('Does it follow the figure, joints or fills?', ['sealed'], ['stirred', 'damp', 'film']),
      last: ask('Did it change from the first faces to the last?', ['stirred'], ['sealed', 'damp']),
      cloudy: ask('A little cloudy too?', ['damp'], ['rubbed', 'film']),
    },
  },
]
