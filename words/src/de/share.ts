import type { share as english } from '../en/share.ts';
import type { Same } from '../same.ts';

/** Eine Anfrage teilen. */
export const share: Same<typeof english> = {
  title: 'Geteilt mit',
  nobodyYet: 'Niemandem außer denen, die daran arbeiten.',
  open: 'Diese Anfrage teilen',
  hint: 'Sie können diese Anfrage lesen und sonst nichts. Sie finden sie in der Ablage „Mit mir geteilt“. Wir schreiben ihnen keine E-Mail.',
  who: 'Person oder Gruppe',
  find: 'Namen eingeben',
  noneFound: 'Niemand mit diesem Namen',
  groupOf_one: 'Gruppe, {{count, number}} Mitglied',
  groupOf_other: 'Gruppe, {{count, number}} Mitglieder',
  until: 'Letzter Tag (freiwillig)',
  untilDay: 'bis {{day, date}}',
  now: 'Jetzt teilen',
  done: 'Geteilt mit {{name}}',
  end: 'Nicht mehr teilen',
  endWith: 'Nicht mehr mit {{name}} teilen',
  ended: 'Nicht mehr mit {{name}} geteilt',
  nobody: 'Diese Person oder Gruppe kennen wir nicht.',
  choose: 'Wählen Sie jemanden aus der Liste.',
  over: 'Dieser Tag ist vorbei.',
  laterDay: 'Wählen Sie heute oder einen späteren Tag, oder lassen Sie das Feld leer.',
};
