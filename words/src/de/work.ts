import type { work as english } from '../en/work.ts';
import type { Same } from '../same.ts';

export const work: Same<typeof english> = {
  correctDraft: 'Korrigieren Sie es im Entwurf, und versuchen Sie es noch einmal.',
  noStage: 'Diese Stufe gibt es nicht.',
  chooseFromList: 'Wählen Sie eine aus der Liste.',
  noTeam: 'Dieses Team gibt es nicht.',
  chooseTeam: 'Wählen Sie ein Team aus der Liste.',
  outsideStaff: 'Diese Adresse gehört einer Person, die hier arbeitet.',
  outsideInactive: 'Dieser Kontakt ist inaktiv.',
  outsideAsked: 'Von dieser Person kommt die Anfrage.',
  outsideAnother: 'Geben Sie die Adresse einer anderen Person ein.',
  notInTeam: 'Diese Person gehört nicht zum Team der Anfrage.',
  chooseFromTeam: 'Wählen Sie eine Person aus dem Team.',
  unknownRequester: '„{{typed}}“: Wir kennen niemanden mit dieser E-Mail-Adresse, oder mehrere Personen heißen so.',
  correctRequester: 'Korrigieren Sie die Zelle, oder lassen Sie sie leer, um selbst anzufragen.',
  asksNobody: 'Dort steht niemand, der gefragt werden könnte.',
  asksWhoCannot: 'Wer dort steht, kann mit diesem Formular nicht gefragt werden.',
  asksOther: 'Tragen Sie ein, wer es ist, oder fragen Sie mit einem anderen Formular.',
  cannotAskSo: 'So wie es jetzt eingerichtet ist, kann das nicht gefragt werden. Die Koordination kann es berichtigen.',
};
