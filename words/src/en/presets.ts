export const presets = {
  today: 'today',
  now: 'now',
  daysFromToday_one: '{{count}} day from today',
  daysFromToday_other: '{{count}} days from today',
  daysAgo_one: '{{count}} day ago',
  daysAgo_other: '{{count}} days ago',
  requester: 'the requester',
  requesterTeam: 'the requester’s team',
} as const;
