import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { PlanRules } from '@tolvek/core/access';
import { mergePlans } from '@tolvek/core/form';
import { useMemo } from 'react';
import { workshopApi } from '../endpoints.ts';
import { type Keeper, type Keeping, useEditing } from '../useEditing.ts';

export type Plan = AnswerOf<'accessPlan'>;

/** The access plan of a register as it is being written, kept on the server as one goes. */
export function usePlan({ key, draft, version }: Plan): Keeping<PlanRules> {
  const [keep] = workshopApi.useKeepAccessPlanMutation();
  const [read] = workshopApi.useLazyAccessPlanQuery();
  const keeper = useMemo(
    (): Keeper<PlanRules> => ({
      merge: mergePlans,
      store: async (body, onVersion) => {
        const { data, error } = await keep({ key, version: onVersion, body: body as BodyOf<'keepAccessPlan'> });
        return data ? { version: data.version } : { error };
      },
      read: async () => {
        const { data } = await read({ key });
        return data && { content: data.draft, version: data.version };
      },
    }),
    [key, keep, read],
  );
  return useEditing<PlanRules>({ content: draft, version }, keeper);
}
