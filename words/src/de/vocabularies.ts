import type { vocabularies as english } from '../en/vocabularies.ts';
import type { Same } from '../same.ts';

export const vocabularies: Same<typeof english> = {
  itsName: 'sein Name',
  itsPlace: 'wo er steht',
  itsOthers: 'andere Wörter dafür',
  itsOffer: 'ob er zur Wahl steht',
  inOthers: 'wie er in anderen Sprachen heißt',
  itsMerging: 'womit er zusammengeführt ist',
  theTerms: 'die Begriffe',
  theVocabulary: 'das Vokabular',
  sameKey: 'Zwei Begriffe haben denselben Schlüssel „{{key}}“.',
  giveOther: 'Fügen Sie einen davon unter anderem Namen neu hinzu.',
  noWords: 'Ein Begriff hat keinen Namen.',
  nameOrRemove: 'Geben Sie einen Namen ein, oder entfernen Sie den Begriff.',
  twice: '„{{label}}“ steht zweimal in der Liste.',
  mergeOrRename: 'Führen Sie beide zusammen, oder benennen Sie einen um.',
  sharedWord: '„{{word}}“ ist auch ein anderes Wort für „{{label}}“.',
  removeFromOne: 'Entfernen Sie es bei einem von beiden.',
  lostParent: '„{{label}}“ steht unter einem Begriff, den es nicht mehr gibt.',
  moveIt: 'Verschieben Sie ihn.',
  underItself: '„{{label}}“ steht unter sich selbst.',
  tooDeep: '„{{label}}“ liegt tiefer als {{most}} Ebenen.',
  moveUp: 'Verschieben Sie ihn nach oben.',
  lostMerge: '„{{label}}“ wurde mit einem Begriff zusammengeführt, den es nicht mehr gibt.',
  mergeOther: 'Wählen Sie einen anderen Begriff dafür.',
};
