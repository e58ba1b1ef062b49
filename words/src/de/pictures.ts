import type { pictures as english } from '../en/pictures.ts';
import type { Same } from '../same.ts';

/** Was über Bilder gesagt wird. */
export const pictures: Same<typeof english> = {
  notAPicture: 'Das ist kein Bild, das sich zeigen lässt, oder es ist zu groß.',
  chooseOther: 'Wählen Sie ein Bild als PNG, JPEG oder WebP mit höchstens {{most, size}}.',
  cannotRead: 'Diese Datei ist nicht als Bild lesbar. Wählen Sie PNG, JPEG oder WebP.',
  choose: 'Bild wählen',
  chooseAnother: 'Anderes Bild wählen',
  remove: 'Bild entfernen',
  yourPortrait: 'Ihr Porträt',
  portraitOf: 'Porträt von {{name}}',
  logo: 'Logo',
  logoHint: 'Anfragende sehen es oben am Empfang. Auch im Dunkeln steht es auf Weiß.',
  portrait: 'Porträt',
};
