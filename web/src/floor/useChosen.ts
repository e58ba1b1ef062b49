import { useCallback, useEffect, useState } from 'react';
import type { ChosenRow } from './Ledger.tsx';

/** What is chosen of a list, with the versions that were seen; null while nothing is to be. `of`: another list begins anew. */
export function useChosen(of: string) {
  const [chosen, setChosen] = useState<ReadonlyMap<string, number> | null>(null);
  const choose = useCallback(
    (rows: readonly ChosenRow[], isIn: boolean): void =>
      setChosen((before) => {
        const now = new Map(before);
        for (const { number: each, version } of rows) {
          if (isIn) now.set(each, version);
          else now.delete(each);
        }
        return now;
      }),
    [],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is chosen is chosen in a list, as it is seen there
  useEffect(() => setChosen((before) => before && new Map()), [of]);
  return { chosen, choose, begin: () => setChosen((before) => (before ? null : new Map())) };
}
