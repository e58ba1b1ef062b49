import { said } from '@tolvek/words';
import { rostersOfApproval } from '../approval/index.ts';
import { rostersOfDeadlines } from '../deadline/index.ts';
import type { Reference } from '../design/index.ts';
import { handlersIn } from '../routing/index.ts';
import { rostersOfNotices, USUAL_NOTICES } from '../telling/index.ts';
import type { FormDesign } from './design.ts';

/** Where a form asks who is on duty: to handle a request, to decide on it, to hear of a deadline, to get a notice. */
export const rostersNamed = ({
  routing,
  approval,
  deadline,
  notices = USUAL_NOTICES,
}: Pick<FormDesign, 'routing' | 'approval' | 'deadline' | 'notices'>): readonly Reference[] => {
  const named = [
    ...handlersIn(routing).flatMap(({ ways }) =>
      ways.flatMap((way) => (way.by === 'duty' ? [{ key: way.roster, at: said('pages:routing') }] : [])),
    ),
    ...rostersOfApproval(approval).map((key) => ({ key, at: said('pages:approval') })),
    ...rostersOfDeadlines(deadline).map((key) => ({ key, at: said('pages:approval') })),
    ...rostersOfNotices(notices).map((key) => ({ key, at: said('pages:notices') })),
  ];
  return named.map((each) => ({ kind: 'roster', ...each }));
};
