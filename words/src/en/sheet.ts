export const sheet = {
  inPlaceOf: 'in place of {{who}}',
  namedBy: 'named by “{{field}}”',
  outcomePath_one: '{{team}} · {{priority}} priority · {{count}} working day · decided by “{{path}}”',
  outcomePath_other: '{{team}} · {{priority}} priority · {{count}} working days · decided by “{{path}}”',
  outcomeApproval_one: '{{team}} · {{priority}} priority · {{count}} working day · needs approval',
  outcomeApproval_other: '{{team}} · {{priority}} priority · {{count}} working days · needs approval',
  outcome_one: '{{team}} · {{priority}} priority · {{count}} working day · no approval',
  outcome_other: '{{team}} · {{priority}} priority · {{count}} working days · no approval',
  dueArrived: 'Arrived {{at, moment}}.',
  dueRow_one:
    'Row {{row}} of the routing table allows {{count}} working day. The request is due at closing time on that day.',
  dueRow_other:
    'Row {{row}} of the routing table allows {{count}} working days. The request is due at closing time on the last of these days.',
  dueTable_one: 'The routing table allows {{count}} working day. The request is due at closing time on that day.',
  dueTable_other:
    'The routing table allows {{count}} working days. The request is due at closing time on the last of these days.',
  dueCalendar: 'The calendar “{{calendar}}” counts {{length, length}} of working time from the start.',
  dueHoliday: '{{name}} ({{day, date}}) does not count.',
  duePaused: 'Paused since {{from, moment}}. The time does not count.',
  duePausedTo: 'Paused from {{from, moment}} to {{to, moment}}. That time was added.',
  dueIs: 'Due {{at, moment}}.',
} as const;
