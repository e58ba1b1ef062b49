import { Duration, Months } from '../calendarTime.ts';
import * as decimal from '../decimal.ts';
import { define } from './builtIn.ts';

const number = define('Numbers');
const yesNo = define('Yes and no');
const NUMBER = { kind: 'number' } as const;
const YES_NO = { kind: 'yes-no' } as const;

const rounding = (
  name: string,
  way: decimal.Rounding,
  says: string,
  examples: readonly (readonly [string, string])[],
) =>
  number({
    name,
    takes: [
      ['number', 'number'],
      ['places', 'number'],
    ],
    gives: NUMBER,
    says,
    examples,
    run: (value, places) => decimal.roundTo(value, places, way),
  });

const toWhole = (
  name: string,
  way: 'floor' | 'ceiling',
  says: string,
  examples: readonly (readonly [string, string])[],
) =>
  number({
    name,
    takes: [
      ['number', 'number'],
      ['places?', 'number'],
    ],
    gives: NUMBER,
    says,
    examples,
    run: (value, places = 0) => decimal.roundTo(value, places, way),
  });

export const NUMBER_FUNCTIONS = [
  number({
    name: 'abs',
    takes: [['number', ['number', 'duration', 'months']]],
    gives: ([of = NUMBER]) => of,
    says: 'a number or length without its sign',
    examples: [['abs(-3)', '3']],
    run: (value) => without(value),
  }),
  toWhole('floor', 'floor', 'a number rounded down, to whole or to decimal places', [['floor(-1.5)', '-2']]),
  toWhole('ceiling', 'ceiling', 'a number rounded up, to whole or to decimal places', [
    ['ceiling(1.1)', '2'],
    ['ceiling(1.111, 2)', '1.12'],
  ]),
  rounding('decimal', 'half even', 'a number rounded to decimal places, a half to the even neighbour', [
    ['decimal(2.5, 0)', '2'],
  ]),
  rounding('round up', 'up', 'a number rounded away from zero', [['round up(5.01, 1)', '5.1']]),
  rounding('round down', 'down', 'a number rounded towards zero', [['round down(-5.09, 1)', '-5']]),
  rounding('round half up', 'half up', 'a number rounded, a half away from zero', [
    ['round half up(2.345, 2)', '2.35'],
  ]),
  rounding('round half down', 'half down', 'a number rounded, a half towards zero', [
    ['round half down(2.345, 2)', '2.34'],
  ]),
  number({
    name: 'modulo',
    takes: [
      ['number', 'number'],
      ['divisor', 'number'],
    ],
    gives: NUMBER,
    says: 'what a division leaves over',
    examples: [['modulo(-12, 5)', '3']],
    run: decimal.modulo,
  }),
  number({
    name: 'odd',
    takes: [['number', 'number']],
    gives: YES_NO,
    says: 'whether a whole number is odd',
    examples: [['odd(3)', 'true']],
    run: (value) => (Number.isInteger(value) ? value % 2 !== 0 : null),
  }),
  number({
    name: 'even',
    takes: [['number', 'number']],
    gives: YES_NO,
    says: 'whether a whole number is even',
    examples: [['even(3)', 'false']],
    run: (value) => (Number.isInteger(value) ? value % 2 === 0 : null),
  }),
  number({
    name: 'number',
    takes: [['text', 'text']],
    gives: NUMBER,
    says: 'the number a text writes, with a point for decimals',
    examples: [
      ['number("12.50")', '12.5'],
      ['number("twelve")', 'null'],
    ],
    run: (value) => (/^-?\d+(\.\d+)?$/.test(value.trim()) && Number.isFinite(Number(value)) ? Number(value) : null),
  }),
  yesNo({
    name: 'not',
    takes: [['value', 'yes-no']],
    gives: YES_NO,
    says: 'the opposite of yes or no',
    examples: [['not(true)', 'false']],
    run: (value) => !value,
  }),
];

function without(value: number | Duration | Months): number | Duration | Months {
  if (typeof value === 'number') return Math.abs(value);
  return value instanceof Duration ? new Duration(Math.abs(value.seconds)) : new Months(Math.abs(value.months));
}
