import { type Said, said, type Words } from '@tolvek/words';
import { audienceInWords, isForAll } from '../people/index.ts';
import type { DoorDesign, DoorLimit } from './door.ts';

function limitInWords({ most: count, of, days, period, unfinished }: DoorLimit): Said {
  if (unfinished) return said(of === 'all' ? 'doors:mostAllUnfinished' : 'doors:mostEachUnfinished', { count });
  if (period) return said(of === 'all' ? `doors:mostAll.${period}` : `doors:mostEach.${period}`, { count });
  if (days === null) return said(of === 'all' ? 'doors:mostAll' : 'doors:mostEach', { count });
  if (days === 1) return said(of === 'all' ? 'doors:mostAllDay' : 'doors:mostEachDay', { count });
  return said(of === 'all' ? 'doors:mostAllDays' : 'doors:mostEachDays', { count, days });
}

/** What a door is set to, in sentences: who comes in, how, when, and how many. `fieldName`: what fields of its form are called. */
export function doorInWords(
  door: DoorDesign,
  nameOf: (word: string) => Words,
  fieldName: (key: string) => string = (key) => key,
): readonly Words[] {
  const { audience, proof, opensAt, closesAt, limits, unnamed, finishing = 0 } = door;
  const who = isForAll(audience) ? null : audienceInWords(audience, nameOf);
  return [
    proof === 'sign-in'
      ? who
        ? said('doors:admitsStaffOf', { who })
        : said('doors:admitsStaff')
      : who
        ? said(unnamed ? 'doors:admitsLinkOf' : 'doors:admitsOf', { who })
        : said(unnamed ? 'doors:admitsLink' : 'doors:admitsAnyone'),
    ...(unnamed ? [said('doors:storesNobody')] : []),
    ...(opensAt === null ? [] : [said('doors:opens', { at: opensAt })]),
    ...(closesAt === null ? [] : [said('doors:closes', { at: closesAt })]),
    ...(finishing > 0 ? [said('doors:finishing', { count: finishing })] : []),
    ...limits.map(limitInWords),
    ...(door.embeds ? [said('doors:embeds', { origins: door.embeds })] : []),
    ...(door.waits ? [said('doors:waits', { count: door.waits })] : []),
    ...(door.whose === undefined ? [] : [said('doors:whose', { field: fieldName(door.whose) })]),
    ...(door.proves ? [said(`doors:proves.${door.proves}`)] : []),
    ...(door.follows ? [said(`doors:follows.${door.follows}`)] : []),
    ...(door.again ?? []).map((what) => said(`doors:again.${what}`)),
    ...(door.withdraws ? [said(`doors:withdraws.${door.withdraws}`)] : []),
    ...(door.consent ? [said('doors:asksConsent')] : []),
    ...(door.onlySent ? [said('doors:admitsSent')] : []),
    ...(door.slowsRobots ? [said('doors:slowsRobots')] : []),
  ];
}
