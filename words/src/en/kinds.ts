export const kinds = {
  text: 'text',
  number: 'a number',
  date: 'a date',
  time: 'a time',
  'date-time': 'a date and time',
  'yes-no': 'yes or no',
  duration: 'a length of time',
  months: 'a number of months',
  range: 'a range',
  list: 'a list',
  context: 'a group of values',
  unknown: 'a value',
} as const;
