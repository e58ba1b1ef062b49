export const values = {
  decimal: '{{value, decimal}}',
  decimalUnit: '{{value, decimal}} {{unit}}',
  money: '{{sum, money}}',
  date: '{{day, longDate}}',
  dateTime: '{{moment, longMoment}}',
  moment: '{{moment, moment}}',
  duration: '{{minutes, span}}',
  list: '{{items, list}}',
  joined: '{{pieces, joined}}',
  lines: '{{lines, lines}}',
} as const;
