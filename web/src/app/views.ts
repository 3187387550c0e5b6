/**
 * What each view is for, in a few sentences, and the page of the manual that tells it whole: shown by `?` above its keys. Looked
 * up by the first part of the address.
 */
export const VIEWS: Record<string, { title: string; says: string[]; page: string }> = {
  '': {
    title: 'Jobs',
    page: 'first-part',
    says: [
      'Each job is a part: what it is made of, its faces, what is wrong with them and what they should become.',
      'Open one to see its plan. Mark several to order them for the day, to export them or to print their cards.',
    ],
  },
  jobs: {
    title: 'A job and its plan',
    page: 'first-part',
    says: [
      'On the left the faces: what was found, what is wanted, how it can be reached, how much may come off.',
      'In the middle the descent: minutes across, the deepest mark that is left downwards. Each tread is a step; where it ends, look under the lamp.',
      'On the right the step in hand with its speed, its check and its cautions. Every change of a value plans anew.',
    ],
  },
  bench: {
    title: 'At the bench',
    page: 'bench',
    says: [
      'One step at a time in large letters. Space begins it and says that the old marks are gone.',
      'Say so when you found a deep one: the way back is worked out. Nothing is lost when the tablet goes dark.',
    ],
  },
  today: {
    title: 'Today',
    page: 'day',
    says: [
      'What is ordered or at the bench, laid out over people, machines and spindles: few wheel changes, promises kept, waiting beside work.',
      'Drag a block to put it elsewhere; the rest settles around it or says why it cannot.',
    ],
  },
  gauge: {
    title: 'Gauge',
    page: 'sizes',
    says: [
      'Work that is judged by a gauge: put in readings where they were taken, and the next move follows with the risk to pass the limit bounded.',
    ],
  },
  rack: {
    title: 'Rack',
    page: 'rack',
    says: [
      'What the shop owns, coarse to fine. Jobs can be planned from it alone.',
      'A wheel keeps to its bar and its metal for life; the rack remembers which.',
    ],
  },
  light: {
    title: 'Light',
    page: 'bench',
    says: [
      'How a surface looks under a low lamp after each grade, computed from the model. Practise to see what is still there.',
    ],
  },
  log: {
    title: 'Log',
    page: 'bench',
    says: [
      'Every run at the bench, planned and as it was; what the shop learnt from it, its house ways, and what is due for care.',
    ],
  },
  settings: {
    title: 'Settings',
    page: 'day',
    says: [
      'Units, prices, people, the look and the sounds of this screen, what a foot switch means, and the backups of everything.',
    ],
  },
  tables: {
    title: 'Tables',
    page: 'figures',
    says: ['Grades, materials, finishes, tools and machines with their figures, and where each figure comes from.'],
  },
  manual: { title: 'Manual', page: 'first-part', says: ['How it is worked with, a page for each kind of work.'] },
};
