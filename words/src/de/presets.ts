import type { presets as english } from '../en/presets.ts';
import type { Same } from '../same.ts';

export const presets: Same<typeof english> = {
  today: 'heute',
  now: 'jetzt',
  daysFromToday_one: '{{count}} Tag nach heute',
  daysFromToday_other: '{{count}} Tage nach heute',
  daysAgo_one: 'vor {{count}} Tag',
  daysAgo_other: 'vor {{count}} Tagen',
  requester: 'die anfragende Person',
  requesterTeam: 'das Team der anfragenden Person',
};
