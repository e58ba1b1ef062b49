import type { ItemsShown, Kind, RawAnswer } from '@tolvek/core/register';
import { useEffect, useMemo, useState } from 'react';
import { useAroundFields } from './input.ts';

type Reckon = typeof import('./itemsShown.ts')['itemsShown'];
const NOTHING: ItemsShown = { cells: [], sums: {} };

/** Computed cells and sums of lines, and cells of some other columns, as soon as what reckons them is here. */
export function useItemsShown(
  type: Extract<Kind, { kind: 'line-items' }>,
  raw: RawAnswer,
  also: readonly string[] = [],
): ItemsShown {
  const around = useAroundFields();
  const told = also.join(' ');
  const [reckon, setReckon] = useState<{ readonly run: Reckon } | null>(null);
  useEffect(() => {
    let wanted = true;
    import('./itemsShown.ts').then(
      ({ itemsShown }) => wanted && setReckon({ run: itemsShown }),
      // Without them the lines can still be filled in; the server reckons what is stored.
      () => {},
    );
    return () => {
      wanted = false;
    };
  }, []);
  return useMemo(
    () => reckon?.run(type, raw, around, told === '' ? [] : told.split(' ')) ?? NOTHING,
    [reckon, type, raw, around, told],
  );
}
