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
} as const;
