/** Words of the trade, each in a plain sentence. */
export const TERMS = {
  jump: {
    label: 'Grit steps',
    says: 'How much finer the next grit is. A long jump saves a change, but the finer grit must then work out deeper marks than it is quick at.',
  },
  lay: {
    label: 'Lay',
    says: 'The direction in which all marks run. A brushed face has one lay; a mirror shows none.',
  },
  reach: {
    label: 'Reach',
    says: 'How a tool can get there: an open face takes discs and wheels, the inside of a bore or a tight corner only what is small enough.',
  },
  removal: {
    label: 'Removal',
    says: 'What comes off the face in all, from the highest peaks down. It must be less than the metal, coat or size that may be lost.',
  },
  ripple: {
    label: 'Ripple',
    says: 'Waves wider than marks, which bend a reflection. Soft tools ride over them; only a firm backing takes them down.',
  },
  spots: {
    label: 'Spots',
    says: 'Damage deeper than the rest, in some places: gouges, dents, pits, a bead. It is worked where it is, each finer grit a little further out, before one pass goes over everything.',
  },
  'light-check': {
    label: 'Light check',
    says: 'Look along the face under a low lamp: marks of the grit before stand out across the new ones. Go on only when there are none.',
  },
} as const;
export type TermId = keyof typeof TERMS;
