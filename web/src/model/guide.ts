// The pages of the guide, in the order in which they are read; each is a file under docs/guide.

export const GUIDE = [
  { id: 'first-box', title: 'A first box' },
  { id: 'horn', title: 'A horn' },
  { id: 'under-seat-wedge', title: 'A wedge under a seat' },
  { id: 'signal', title: 'Filters and amplifier' },
  { id: 'place', title: 'Room, car, outdoors' },
  { id: 'build', title: 'From the drawing to sawdust' },
  { id: 'measure', title: 'Measure what you have built' },
  { id: 'figures', title: 'What each figure means' },
  { id: 'how-sure', title: 'How sure are we?' },
] as const;

export type GuideId = (typeof GUIDE)[number]['id'];
