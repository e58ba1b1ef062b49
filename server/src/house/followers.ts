import { followNobody } from '../approval/alarm.ts';
import { dropRounds, followApprovals, LAID_ROUNDS } from '../approval/follow.ts';
import { followAssignment } from '../assignment/follow.ts';
import { dropDeadlines, followDeadlines, LAID_DEADLINES } from '../deadline/follow.ts';
import { dropFound, followWords } from '../find/keepWords.ts';
import { dropOwed, followStages, LAID_OWED } from '../mailing/follow.ts';
import { dropNotices, followNotices, LAID_NOTICES } from '../notice/follow.ts';
import { noteForgotten } from '../notice/turned.ts';
import { dropProposals, LAID_PROPOSALS } from '../proposal/commands.ts';
import { dropReported, LAID_REPORTS } from '../report/follow.ts';
import { type Forgetter, followedBy, forgottenBy } from '../request/change.ts';
import { laidBy } from '../request/layBy.ts';

/**
 * What follows from a change of a request, in this order: a decision waits before anybody is told
 * that it does.
 */
followedBy([
  followDeadlines,
  followApprovals,
  followNobody,
  followAssignment,
  followNotices,
  followStages,
  followWords,
]);

/** What comes back with a request that was deleted. */
laidBy([...LAID_DEADLINES, ...LAID_ROUNDS, ...LAID_PROPOSALS, ...LAID_OWED, ...LAID_NOTICES, ...LAID_REPORTS]);

/** What goes with requests that are deleted. */
forgottenBy([
  noteForgotten,
  dropFound,
  ...[dropOwed, dropNotices, dropReported, dropProposals, dropRounds, dropDeadlines].map(
    (drop): Forgetter =>
      ({ tx }, requestIds) =>
        drop(tx, requestIds),
  ),
]);
