import { isOfEveryObject } from './own.ts';

/**
 * A key from a label that nothing here has yet: `Car plate` becomes `car_plate`, then
 * `car_plate_2`. Expressions can name it.
 */
export function freshKey(label: string, taken: ReadonlySet<string>): string {
  const stem =
    label
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^[_0-9]+|_+$/g, '')
      .slice(0, 50) || 'field';
  if (!taken.has(stem) && !isOfEveryObject(stem)) return stem;
  for (let n = 2; ; n += 1) if (!taken.has(`${stem}_${n}`)) return `${stem}_${n}`;
}
