/**
 * What each view is for, in a few sentences, and the page of the manual that tells it whole: shown by `?` above its keys. Looked
 * up by the first part of the address; a job has a page of its own, `plan`.
 */
export const VIEWS: Record<string, { title: string; says: string[]; page: string }> = {
  jobs: {
    title: 'Jobs',
    page: 'jobs',
    says: [
      'Each job is a part: what it is made of, its faces, what is wrong with them and what they should become.',
      'What was promised first stands at the top, with what is next and a button for it. Everything else is in the menu of the line.',
    ],
  },
  plan: {
    title: 'A job and its plan',
    page: 'plan',
    says: [
      'On the left the part: press an answer to change it, and the plan follows.',
      'The stair has minutes across and the deepest mark that is left downwards. Each tread is a step; where it ends, look under the lamp.',
      'Press a step for its speed, its check and its cautions. Everything else is under Options.',
    ],
  },
  bench: {
    title: 'At the bench',
    page: 'bench',
    says: [
      'One step at a time in large letters. Space begins it and says that the old marks are gone.',
      'Say so when you found a deep one: the way back follows. Nothing is lost when the tablet goes dark.',
    ],
  },
  schedule: {
    title: 'Schedule',
    page: 'schedule',
    says: [
      'On the left what is late and what would cure it, who does what now and next, and every promise.',
      'Beside it the day, from the top down. Press a block for its steps, drag it to move it; the rest settles around it or says why it cannot.',
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
    page: 'light',
    says: [
      'How a surface looks under a low lamp after each grit, computed from the model. Practise to see what is still there.',
    ],
  },
  log: {
    title: 'Log',
    page: 'log',
    says: [
      'Every run at the bench, planned and as it was; what the shop learnt from it, its house ways, and what is due for maintenance.',
    ],
  },
  settings: {
    title: 'Settings',
    page: 'settings',
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
