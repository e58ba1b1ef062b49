import type { AnswerOf } from '@tolvek/contract';
import type { KnownRequest } from '@tolvek/core/register';
import { useMemo, useState } from 'react';
import { type AroundFields, NOTHING_KNOWN } from '../fields/input.ts';
import { uploadFile } from '../fields/uploadFile.ts';
import { useOnTheWay } from '../fields/useOnTheWay.ts';
import { floorApi } from './endpoints.ts';

/** What inputs know of the request whose answers they change: who can be picked, what is offered, where files go. */
export function useAroundSheet(
  sheet: Pick<AnswerOf<'sheet'>, 'number' | 'people' | 'vocabularies' | 'references'>,
): AroundFields {
  const [ask] = floorApi.useSheetOffersMutation();
  const [chosen, setChosen] = useState<readonly KnownRequest[]>([]);
  const { isOnTheWay, follow } = useOnTheWay();
  return useMemo(
    (): AroundFields => ({
      ...NOTHING_KNOWN,
      people: sheet.people,
      vocabularies: sheet.vocabularies,
      references: [...sheet.references, ...chosen],
      offers: (field, find) => ask({ number: sheet.number, body: { field, find } }).unwrap(),
      know: (known) => setChosen((before) => [...before, known]),
      upload: (field, file, arrived) =>
        follow(uploadFile(`/api/requests/${encodeURIComponent(sheet.number)}/uploads`, field, file, arrived)),
      isOnTheWay,
    }),
    [sheet, chosen, ask, follow, isOnTheWay],
  );
}
