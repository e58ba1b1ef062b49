import type { notes as english } from '../en/notes.ts';
import type { Same } from '../same.ts';

export const notes: Same<typeof english> = {
  releaseOf: 'Ausgabe {{number}} von „{{title}}“',
  forTrials: 'Für Probeanfragen',
  asInState: 'Wie in Stand {{number}}',
};
