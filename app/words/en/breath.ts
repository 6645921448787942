/** The air that people breathe, and what may burn. */
export default {
  care: {
    short: {
      ask: 'Oily rags: where do they lie?',
      stiff: 'Rags are stiff by now',
      lie: 'Oily rags lie out',
      wet: 'Oily rags under water',
      looked: '{room}: look for flames first',
      over: 'Cartridges are through',
      soon: 'Cartridges are nearly through',
    },
    ask: 'Oily rags of {what}: where do they lie?',
    stiff: 'Oily rags of {what} are stiff by now: into a metal bin with a lid.',
    stiffening: 'Oily rags of {what} lie flat in the open until {until}.',
    wet: 'Oily rags of {what} lie under water: to be handed in as waste.',
    flat: 'Flat in the open',
    water: 'Under water, lid on',
    gone: 'Gone',
    said: {
      flat: 'Oily rags lie flat in the open.',
      water: 'Oily rags are under water, lid on.',
      gone: 'Oily rags are gone.',
    },
    why: 'Why this is asked',
    ragsWhy:
      'Rags with drying oil heat up by themselves and burn: singly and flat in the open until stiff, or under ' +
      'water in a closed metal can (common practice). Data sheet, local codes and licensed practice outrank this.',
    looked: '{room}: flame, pilot light, heater, plain fan motor?',
    lookedYes: 'Looked, none is on',
    maskOver: 'Your cartridges are through: change them before the next solvent work.',
    maskSoon: 'Your cartridges have {left} of use left, until {day} at the latest.',
    newOnes: 'New ones fitted',
  },
  breath: {
    masks: 'Cartridges for organic vapour',
    masksWhy:
      'Hours of solvent work by their own hands since they were fitted. 8 h in use and 30 days open are common ' +
      'practice; the maker, your change schedule, local codes and licensed practice outrank them.',
    none: 'nothing said',
    fitted: 'since {day}; {worn} of {lasts} h used, until {until} at the latest',
    over: 'through',
    soon: 'nearly through',
    lastsH: 'Hours in use',
    lastsD: 'Days open',
    fit: 'New ones fitted',
    unfit: 'Take back',
    limits: 'Limits in air',
    limitsWhy:
      'Usual limits: NIOSH Pocket Guide, methylene chloride by OSHA, from memory. Put in what your law says; it is ' +
      'counted with from then on. Local codes and licensed practice outrank both.',
    usual: 'usual {mg} mg/m³, burns from {lel} %',
    own: 'own: {mg} mg/m³ ({source})',
    mg: 'mg/m³',
    source: 'By which rule',
    set: 'Set',
    usualAgain: 'The usual one',
    vocYear: 'VOC that the house may give off in a year, kg',
    vocNone: 'No limit is set.',
    vocSoFar: '{kg} kg of {most} kg this year, {percent} %',
    vocOver: 'More than the house may give off this year: {kg} kg of {most} kg.',
    vocAxis: 'kg VOC',
    chart: 'kg VOC by month',
    waste: 'Waste that waits to be handed in',
    noWaste: 'Nothing that was thrown away waits.',
    takenTo: 'Taken to',
    receipt: 'Receipt',
    litres: 'Litres, if others than counted',
    word: 'What else',
    handIn: 'Handed in',
    receipts: 'Receipts',
    receiptOf: '{day}: {litres} l to {to}',
    receiptNo: 'receipt {no}',
    wasteWhy:
      'What was thrown away wet, by class. Sludge, rags under water and rinsing solvent are not counted: say them. ' +
      'Most of it is hazardous waste: the local authority says where it goes.',
  },
} as const
