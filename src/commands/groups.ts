/** The groups of commands, in the order in which lists of them show them. */
export const GROUPS = {
  place: 'Place',
  part: 'Part',
  order: 'Line up',
  room: 'Room',
  wire: 'Wire',
  colour: 'Mark with a colour',
  remove: 'Take away',
  sheet: 'Sheet',
  save: 'Save and print',
  history: 'Undo',
  moment: 'The moment',
  view: 'Look',
  face: 'Faces',
  settings: 'How it is drawn',
  lesson: 'Lesson',
} as const;

export type Group = keyof typeof GROUPS;
