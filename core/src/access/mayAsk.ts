import type { Viewer } from '../people/index.ts';
import { waysToStand } from './classes.ts';
import type { Protection } from './protection.ts';
import { prepareAccess } from './situation.ts';

/** Whether a viewer may have requests looked through by what some of their fields hold. */
export interface MayAsk {
  /** Names that stand for nothing here as far as this viewer is concerned; none when they may ask. */
  readonly unknown: readonly string[];
  /** Whether requests that are the viewer’s own are looked at as well. */
  readonly own: boolean;
}

/**
 * Decides by the plan whether a viewer who works at the desk may ask something of requests that
 * reads these names; never by the requests that happen to be there. A field that is hidden, on
 * some of them only as well, and one that does not exist are the same.
 */
export function mayAsk(names: readonly string[], protection: Protection, viewer: Viewer): MayAsk {
  const readingOf = prepareAccess(protection);
  // Which request is its handler’s, or their team’s, is not known before it is looked at.
  const ways = waysToStand(protection.plan);
  const mayKnow = (isRequester: boolean, name: string): boolean =>
    ways.every((as) =>
      readingOf({ viewer, relation: { isDesk: true, isRequester, as }, purpose: 'counting', at: null }).mayKnow(name),
    );
  return {
    unknown: names.filter((name) => !mayKnow(false, name)),
    own: names.every((name) => mayKnow(true, name)),
  };
}
