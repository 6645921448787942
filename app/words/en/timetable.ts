/** Timetable. */
export default {
  timetable: {
    title: 'The next seven days',
    how: 'As waits and opening hours give them, with the safe end of every wait and one pair of hands for each piece.',
    closed: 'closed',
    hands: '{h} hands on',
    held: 'waits for the client',
    ready: 'ready {likely}, safe {safe}',
    late: 'later than promised, {day}',
  },
} as const
