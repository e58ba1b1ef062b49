export const routing = {
  columnWrong: 'Column “{{column}}”: {{message}}',
  notLooked: 'Rows {{rows}} were not checked for use. There are too many cases. Split the table, or use fewer columns.',
  row: 'Row {{row}}',
  lastRow: 'The last row',
  cellWrong: '{{row}}, {{column}}: {{message}}',
  excludesItself: 'Row {{row}} is never used, because its conditions exclude each other. Change or delete it.',
  neverUsed:
    'Row {{row}} is never used, because earlier rows match first: {{rows, and}}. Move it up, change it or delete it.',
  lostTeam: '{{row}} sends requests to a team that does not exist. Choose a team.',
  badDays: '{{row}}: the working days must be a whole number from 0 to 250. Correct them.',
  dmnPolicy:
    'The table gives several answers at once (hit policy “{{policy}}”). A request goes one way: only tables with the hit policies First, Unique and Any can be taken in.',
  dmnTooLarge: 'The table is too large. At most {{rows}} rows and {{columns}} columns can be taken in.',
  dmnNoOutput:
    'No column says where requests go. Call one of the output columns team, priority, working_days, approval or handler.',
  dmnOutputLeft:
    'Left out: the output column “{{output}}”. It is none of team, priority, working_days, approval and handler.',
  dmnEntryLeft: '{{row}}, {{output}}: {{text}} means nothing here. It stays as in your last row.',
  dmnNoLast: 'The file has no row for everything else. Your last row stays as it is.',
  'of.team': 'team',
  'of.priority': 'priority',
  'of.working_days': 'working days',
  'of.approval': 'approval',
  'of.handler': 'handler',
} as const;
