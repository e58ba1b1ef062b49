import type { values as english } from '../en/values.ts';
import type { Same } from '../same.ts';

export const values: Same<typeof english> = {
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
};
