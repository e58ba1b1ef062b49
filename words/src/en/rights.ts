/** What people may do. */
export const rights = {
  'read.team': 'Read the requests of their teams',
  'read.all': 'Read all requests',
  'change.team': 'Change the requests of their teams, and write notes and messages',
  'change.all': 'Change all requests, and write notes and messages',
  'move.team': 'Move the requests of their teams to another stage',
  'move.all': 'Move all requests, also past a decision',
  'assign.team': 'Choose handler, team and priority for the requests of their teams',
  'assign.all': 'Choose handler, team and priority for all requests',
  'export.team': 'Export the requests of their teams',
  'export.all': 'Export all requests',
  configure: 'Build forms, rules and doors, and import requests',
  groundwork: 'Set up the desk, calendars, registers and vocabularies',
  people: 'Add, change and invite people, and set up groups',
  rights: 'Decide what people may do',
  audit: 'See who could do what on a day in the past',
} as const;
