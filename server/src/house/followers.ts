import { followNobody } from '../approval/alarm.ts';
import { dropRounds, followApprovals } from '../approval/follow.ts';
import { followAssignment } from '../assignment/follow.ts';
import { dropDeadlines, followDeadlines } from '../deadline/follow.ts';
import { dropFound, followWords } from '../find/keepWords.ts';
import { dropOwed, followStages } from '../mailing/follow.ts';
import { dropNotices, followNotices } from '../notice/follow.ts';
import { noteForgotten } from '../notice/turned.ts';
import { dropProposals } from '../proposal/commands.ts';
import { type Forgetter, followedBy, forgottenBy } from '../request/change.ts';

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

/** What goes with requests that are deleted. */
forgottenBy([
  noteForgotten,
  dropFound,
  ...[dropOwed, dropNotices, dropProposals, dropRounds, dropDeadlines].map(
    (drop): Forgetter =>
      ({ tx }, requestIds) =>
        drop(tx, requestIds),
  ),
]);
