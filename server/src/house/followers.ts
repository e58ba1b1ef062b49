import { followApprovals } from '../approval/follow.ts';
import { followDeadlines } from '../deadline/follow.ts';
import { followNotices } from '../notice/follow.ts';
import { followedBy } from '../request/change.ts';

/**
 * What follows from a change of a request, in this order: a decision waits before anybody is told
 * that it does.
 */
followedBy([followDeadlines, followApprovals, followNotices]);
