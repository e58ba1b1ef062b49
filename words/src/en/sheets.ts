export const sheets = {
  unreadable: 'This is not an XLSX file that can be read. Save it again as XLSX or CSV.',
  tooLarge:
    'Unpacked, this file is larger than {{most, size}}. Save the rows you need in a new file, without pictures, or as CSV.',
  tooManyCells:
    'This file has {{cells, number}} cells. At most {{most, number}} can be read. Remove the columns or rows you do not need.',
  'column.number': 'Number',
  'column.stage': 'Stage',
  'column.requester': 'Requester',
  'column.team': 'Team',
  'column.handler': 'Handler',
  'column.arrived': 'Arrived',
  'column.due': 'Due',
  'column.finished': 'Finished',
  'answer.number': 'A number, or as people type it.',
  'answer.numberIn': 'A number, or as people type it, in {{unit}}.',
  'answer.duration': 'Minutes, or a text like 1:35, 2 h or PT1H35M.',
  'answer.date': 'A day as YYYY-MM-DD.',
  'answer.dateTime': 'A date and time as YYYY-MM-DDTHH:MM, on the clock of the desk.',
  'person.name': 'Name',
  'person.email': 'Email address',
  'person.language': 'Language',
  'person.groups': 'Groups',
} as const;
