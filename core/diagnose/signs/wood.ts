/** Signs in the wood, in old films, and in what does not hold. */
import { ask, cause, type Sign } from '../sign'

export const WOOD_SIGNS: readonly Sign[] = [
  {
    ...{ slug: 'rust-specks', no: 21, group: 'wood', name: 'Rust specks, black dots' },
    now: 'No water on it.',
    causes: {
      wool: cause('Steel wool and water', 'oxalic-or-tone', 'No steel wool before water.', {
        more: ['wool', 'waterborne', 'tannin'],
      }),
      iron: cause('Iron tools or nails on wood with tannin', 'oxalic-or-tone', 'Punch and seal iron first.', {
        more: ['tannin'],
      }),
      paper: cause('Wet paper was left lying', 'oxalic-or-tone', 'Nothing wet is left on bare wood.', {
        more: ['tannin'],
      }),
    },
    asks: {
      threads: ask('Tiny dots with threads in them?', ['wool'], ['iron', 'paper']),
      nails: ask('Around nails, screws or clamps?', ['iron'], ['wool', 'paper']),
      patch: ask('A patch with an edge?', ['paper'], ['wool', 'iron']),
    },
  },
  {
    ...{ slug: 'black-spots', no: 22, group: 'wood', name: 'Black spots, rings' },
    now: 'Find out whether it is wet there now.',
    causes: {
      iron: cause('Iron and water in the wood', 'oxalic-or-tone', 'Nothing wet of iron on bare or worn wood.', {
        more: ['tannin'],
      }),
      mould: cause('Mould', 'kill-mould', 'Dry air, and nothing wet behind it.', { more: ['wet-wood', 'damp'] }),
    },
    asks: {
      fuzzy: ask('Fuzzy, or does it smell?', ['mould'], ['iron']),
      round: ask('The outline of a pot, can or foot?', ['iron'], ['mould']),
      bare: ask('Does a drop of oxalic acid make it paler?', ['iron'], ['mould']),
    },
  },
  {
    ...{ slug: 'white-ring', no: 23, group: 'film', name: 'White ring, white haze' },
    now: 'No heat beyond what a hand bears.',
    causes: {
      moisture: cause('Moisture in shellac, lacquer or wax', 'warm-and-rub', 'A coaster; a film that stands water.', {
        more: ['shellac', 'lacquer', 'damp'],
      }),
      heat: cause('Heat', 'warm-and-rub', 'A mat under what is hot.'),
      lift: cause('The film has let go of what is under it', 'off-and-recoat', 'Find out why it lets go first.', {
        more: ['no-scuff', 'contaminated'],
      }),
    },
    asks: {
      outline: ask('The outline of a glass?', ['moisture'], ['lift']),
      clears: ask('Does it clear with gentle warmth or a little oil?', ['moisture', 'heat'], ['lift']),
      flakes: ask('Does it sound hollow, or come off under a knife?', ['lift'], ['moisture', 'heat']),
      dish: ask('Broad and milky, where something hot stood?', ['heat'], ['moisture', 'lift']),
    },
  },
  {
    ...{ slug: 'peeling', no: 24, group: 'hold', name: 'Peeling, no hold' },
    now: 'Find the cause first: another coat comes off with it.',
    causes: {
      scuff: cause('It was not scuffed', 'off-scuff-recoat', 'Scuff every film that has passed its window.', {
        more: ['no-scuff', 'too-late'],
      }),
      wax: cause('Wax or silicone', 'off-and-barrier', 'Solvent off, wetting test, barrier.', {
        more: ['contaminated', 'old-layers'],
      }),
      kinds: cause('The two do not go together', 'off-and-barrier', 'A barrier between them; a test of hold first.', {
        more: ['old-layers'],
      }),
      edge: cause('Water behind the edge', 'off-scuff-recoat', 'Edges and ends sealed.', { more: ['wet-wood'] }),
      late: cause('The next coat came too late', 'off-scuff-recoat', 'Within the window, or scuff.', {
        more: ['too-late'],
      }),
      wet: cause('Moisture in the wood', 'dry-then-anew', 'Read the wood before it is sealed.', {
        more: ['wet-wood', 'damp'],
      }),
    },
    asks: {
      back: ask('Is the back of a flake smooth and shiny?', ['scuff', 'late', 'kinds'], ['wet']),
      beads: ask('Does water bead where it came off?', ['wax'], ['scuff', 'wet', 'late']),
      wood: ask('Does it come off down to the wood?', ['wet', 'wax', 'edge'], ['scuff', 'late']),
      ends: ask('Only from edges and ends?', ['edge', 'wet'], ['wax', 'kinds']),
      old: ask('Between the old film and the new?', ['kinds', 'scuff', 'wax'], ['edge', 'wet', 'late']),
    },
  },
  {
    ...{ slug: 'tape', no: 25, group: 'hold', name: 'Tape pulls the film, or leaves glue' },
    now: 'Pull slowly, back upon itself; warm it a little.',
    causes: {
      young: cause('The film was younger than a day', 'touch-torn-edge', 'A day before tape; paper on faces.', {
        more: ['cut-short', 'taped'],
      }),
      lacquer: cause('Lacquer went over the tape', 'tape-glue-off', 'Off soon after the coat, while it gives.', {
        more: ['lacquer', 'taped'],
      }),
      sun: cause('It lay in hot sun', 'tape-glue-off', 'Out of the sun; off the same day.', { more: ['hot', 'taped'] }),
    },
    asks: {
      film: ask('Has film come off with it?', ['young', 'lacquer'], ['sun']),
      glue: ask('Is there glue left?', ['sun', 'lacquer'], ['young']),
      bridge: ask('Did the coat bridge from face to tape?', ['lacquer'], ['young', 'sun']),
    },
  },
  {
    ...{ slug: 'raised-grain', no: 28, group: 'wood', name: 'Grain stands up, rough' },
    now: 'Let it dry before it is cut.',
    causes: {
      water: cause('Water in the dye or the coat', 'knock-back', 'Raise the grain and cut it first.', {
        more: ['waterborne'],
        less: ['oil', 'lacquer'],
      }),
      fibres: cause('A first coat of thin varnish on loose fibres', 'knock-back', 'That is usual: cut it once.', {
        more: ['oil', 'lacquer'],
      }),
      dull: cause('Sanded with dull paper', 'knock-back', 'Fresh paper for the last grit.'),
    },
    asks: {
      first: ask('After the first wet thing on it?', ['water', 'fibres'], ['dull']),
      before: ask('Was it a little woolly before?', ['dull'], ['water', 'fibres']),
      water: ask('Did that hold water?', ['water'], ['fibres'], {
        ...{ yes: ['waterborne'], no: ['oil', 'lacquer', 'shellac'] },
      }),
    },
  },
]
