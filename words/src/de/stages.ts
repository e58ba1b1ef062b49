import type { stages as english } from '../en/stages.ts';
import type { Same } from '../same.ts';

export const stages: Same<typeof english> = {
  arrived: 'Angekommen',
  arrivedPublic: 'Bei uns angekommen',
  deciding: 'Wartet auf Genehmigung',
  decidingPublic: 'Wartet auf Genehmigung',
  inHand: 'In Arbeit',
  waiting: 'Wartet auf die anfragende Person',
  waitingPublic: 'Wir brauchen Ihre Antwort',
  done: 'Abgeschlossen',
  refused: 'Nicht genehmigt',
  inUse: 'In Gebrauch',
  resting: 'Zurzeit nicht in Gebrauch',
  notAdded: 'Nicht aufgenommen',
  gone: 'Außer Gebrauch',
  withdrawn: 'Zurückgezogen',
};
