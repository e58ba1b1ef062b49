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
  lostStage: '{{row}} names a stage that does not exist. Choose a stage.',
  lostDeadline: '{{row}} sets the length of a deadline that does not exist any more. Remove it from the row.',
  lengthOfFinish:
    '{{row}} sets the finish a second time, among its deadlines. Remove it there; its working days set it.',
  lengthTwice: '{{row}} sets the length of “{{what}}” twice. Remove one of them.',
  lengthTooLong: '{{row}} gives “{{what}}” no length, or more than 400 days. Enter another length.',
  lengthNoNumber: '{{row}}: the formula for “{{what}}” must give a number. Correct it.',
  saysNothing: '{{row}} leaves everything to later rows. Delete it, or choose something that it sets.',
  neverSays:
    'Row {{row}} never sets {{what, and}}, because earlier rows match first: {{rows, and}}. Move it up, or leave this to later rows.',
  holdsTogether:
    'Row {{row}} matches requests that earlier rows match too: {{rows, and}}. Only one row may match. Change the conditions.',
  mayHoldTogether:
    'It cannot be checked whether only one row matches: rows {{rows}}. If several match, the first of them is used. Check these rows.',
  formulaWrong: '{{row}}, formula for “{{what}}”: {{message}}',
  formulaNoNumber: '{{row}}: the formula for the working days must give a number. Correct it.',
  formulaOpen:
    '{{row}}, formula for “{{what}}”: its results must be written out, or come from a choice field. Write: if … then "…" else "…".',
  formulaLost: '{{row}}, formula for “{{what}}”: “{{result}}” does not exist. Correct the result.',
} as const;
