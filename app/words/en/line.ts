/** With and without a line to the server. */
export default {
  line: {
    away: 'No line since {at}.',
    gone: 'No line to the server.',
    asOf: 'Shown as of {at}, {span} ago.',
    carriedOnly: 'There is no line: only pieces that this device carries are looked through.',
    editsLater: 'Without a line a plan is worked on, not changed.',
    asOfNow: 'Shown as of {at}.',
  },
  waiting: {
    open: ['{n} waits for the line', '{n} wait for the line'],
    title: 'Done here, not gone in yet',
    why:
      'Kept on this device. It goes in by itself, in this order, when there is a line. Take back what did not ' +
      'happen.',
    none: 'Nothing waits any more.',
    by: '{name}, {at}',
    byName: 'by name only',
    refused: 'Not taken: {why}',
    back: 'Take back',
    needs: 'It goes in when {name} signs in here.',
    gone: 'It has gone in by now. Take it back at its step.',
    drop: 'Let it go',
    again: 'Open again',
    takeIn: 'Taken in: {name}',
    behind: ['With it goes {n} more on the same step.', 'With it go {n} more on the same step.'],
    kept: 'Kept on this device until there is a line: {says}',
    cannot:
      'There is no line, and this device keeps nothing: its storage is full or refused. This was not kept. Write it ' +
      'down, and enter it later with its minutes.',
    full: 'This device keeps nothing without a line: its storage is full or refused. Free some, or allow it.',
    act: '{act}: {title}',
    picture: 'Photograph: {title}',
    acts: {
      'start': 'Started',
      'finish': 'Done',
      'pause': 'Put aside',
      'go-on': 'Gone on with',
      'hand-on': 'Handed on',
      'spell-back': 'Hands taken back',
      'correct': 'Times corrected',
      'note': 'Note',
      'not-dry': 'Not dry yet',
      'dry': 'Dry',
      'mixed': 'Mixed',
      'section': 'A section',
      'undo': 'Taken back',
    },
  },
  late: {
    title: 'Came in late',
    held: '{by} did this without a line; somebody else did meanwhile. {why}',
    both: 'Both worked on it',
    times: 'Both, at other times',
    back: 'Take mine back',
    backOf: "Take {by}'s back",
    from: 'From',
    to: 'To',
    settle: 'Enter so',
    byName: 'Entered under your name at a tablet without a line, where nobody could look at your PIN.',
    mine: 'That was me',
    notMine: 'Not me',
    broke: '{by}, without a line. Against it: {why}',
    seen: 'Seen',
  },
  byName: {
    why:
      'There is no line, so nobody can look at your PIN. What you do is entered by your name only, and you are asked ' +
      'about it when the line is back.',
    in: 'By name only',
    notBench: 'Without a line only who works at the bench steps up here.',
  },
  program: {
    new: 'A newer Hantverk is here.',
    take: 'Load it',
    later: 'What is in hand goes on. What is half typed on this page is lost.',
  },
} as const
