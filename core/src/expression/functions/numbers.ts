import { Duration, Months } from '../calendarTime.ts';
import * as decimal from '../decimal.ts';
import { define, type FunctionName } from './builtIn.ts';

const number = define('Numbers');
const yesNo = define('Yes and no');
const NUMBER = { kind: 'number' } as const;
const YES_NO = { kind: 'yes-no' } as const;

const rounding = (name: FunctionName, way: decimal.Rounding, examples: readonly (readonly [string, string])[]) =>
  number({
    name,
    takes: [
      ['number', 'number'],
      ['places', 'number'],
    ],
    gives: NUMBER,
    examples,
    run: (value, places) => decimal.roundTo(value, places, way),
  });

const toWhole = (name: FunctionName, way: 'floor' | 'ceiling', examples: readonly (readonly [string, string])[]) =>
  number({
    name,
    takes: [
      ['number', 'number'],
      ['places?', 'number'],
    ],
    gives: NUMBER,
    examples,
    run: (value, places = 0) => decimal.roundTo(value, places, way),
  });

export const NUMBER_FUNCTIONS = [
  number({
    name: 'abs',
    takes: [['number', ['number', 'duration', 'months']]],
    gives: ([of = NUMBER]) => of,
    examples: [['abs(-3)', '3']],
    run: (value) => without(value),
  }),
  toWhole('floor', 'floor', [['floor(-1.5)', '-2']]),
  toWhole('ceiling', 'ceiling', [
    ['ceiling(1.1)', '2'],
    ['ceiling(1.111, 2)', '1.12'],
  ]),
  rounding('decimal', 'half even', [['decimal(2.5, 0)', '2']]),
  rounding('round up', 'up', [['round up(5.01, 1)', '5.1']]),
  rounding('round down', 'down', [['round down(-5.09, 1)', '-5']]),
  rounding('round half up', 'half up', [['round half up(2.345, 2)', '2.35']]),
  rounding('round half down', 'half down', [['round half down(2.345, 2)', '2.34']]),
  number({
    name: 'modulo',
    takes: [
      ['number', 'number'],
      ['divisor', 'number'],
    ],
    gives: NUMBER,
    examples: [['modulo(-12, 5)', '3']],
    run: decimal.modulo,
  }),
  number({
    name: 'odd',
    takes: [['number', 'number']],
    gives: YES_NO,
    examples: [['odd(3)', 'true']],
    run: (value) => (Number.isInteger(value) ? value % 2 !== 0 : null),
  }),
  number({
    name: 'even',
    takes: [['number', 'number']],
    gives: YES_NO,
    examples: [['even(3)', 'false']],
    run: (value) => (Number.isInteger(value) ? value % 2 === 0 : null),
  }),
  number({
    name: 'number',
    takes: [['text', 'text']],
    gives: NUMBER,
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
    examples: [['not(true)', 'false']],
    run: (value) => !value,
  }),
];

function without(value: number | Duration | Months): number | Duration | Months {
  if (typeof value === 'number') return Math.abs(value);
  return value instanceof Duration ? new Duration(Math.abs(value.seconds)) : new Months(Math.abs(value.months));
}
