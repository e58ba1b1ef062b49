import { LIMITS } from '../limits.ts';
import { isTemporal } from '../value.ts';
import { define } from './builtIn.ts';

const text = define('Text');
const TEXT = { kind: 'text' } as const;
const YES_NO = { kind: 'yes-no' } as const;

/** Characters as people count them: by code point, as the standard has it. */
const letters = (value: string): readonly string[] => [...value];

export const TEXT_FUNCTIONS = [
  text({
    name: 'contains',
    takes: [
      ['text', 'text'],
      ['part', 'text'],
    ],
    gives: YES_NO,
    examples: [['contains("harbour", "bo")', 'true']],
    run: (value, part) => value.includes(part),
  }),
  text({
    name: 'starts with',
    takes: [
      ['text', 'text'],
      ['start', 'text'],
    ],
    gives: YES_NO,
    examples: [['starts with("harbour", "har")', 'true']],
    run: (value, start) => value.startsWith(start),
  }),
  text({
    name: 'ends with',
    takes: [
      ['text', 'text'],
      ['end', 'text'],
    ],
    gives: YES_NO,
    examples: [['ends with("harbour", "har")', 'false']],
    run: (value, end) => value.endsWith(end),
  }),
  text({
    name: 'string length',
    takes: [['text', 'text']],
    gives: { kind: 'number', places: 0, least: 0 },
    examples: [['string length("naïve")', '5']],
    run: (value) => letters(value).length,
  }),
  text({
    name: 'substring',
    takes: [
      ['text', 'text'],
      ['start', 'number'],
      ['length?', 'number'],
    ],
    gives: TEXT,
    examples: [
      ['substring("harbour", 4)', '"bour"'],
      ['substring("harbour", -3, 2)', '"ou"'],
    ],
    run: (value, start, length) => {
      const all = letters(value);
      const from = start > 0 ? Math.trunc(start) - 1 : all.length + Math.trunc(start);
      if (start === 0 || from < 0) return null;
      return all.slice(from, length === undefined ? undefined : from + Math.max(0, Math.trunc(length))).join('');
    },
  }),
  text({
    name: 'substring before',
    takes: [
      ['text', 'text'],
      ['match', 'text'],
    ],
    gives: TEXT,
    examples: [['substring before("AC-00042", "-")', '"AC"']],
    run: (value, match) => value.slice(0, Math.max(0, value.indexOf(match))),
  }),
  text({
    name: 'substring after',
    takes: [
      ['text', 'text'],
      ['match', 'text'],
    ],
    gives: TEXT,
    examples: [['substring after("AC-00042", "-")', '"00042"']],
    run: (value, match) => (value.includes(match) ? value.slice(value.indexOf(match) + match.length) : ''),
  }),
  text({
    name: 'upper case',
    takes: [['text', 'text']],
    gives: TEXT,
    examples: [['upper case("pier 2")', '"PIER 2"']],
    run: (value) => value.toUpperCase(),
  }),
  text({
    name: 'lower case',
    takes: [['text', 'text']],
    gives: TEXT,
    examples: [['lower case("Pier 2")', '"pier 2"']],
    run: (value) => value.toLowerCase(),
  }),
  text({
    name: 'split',
    takes: [
      ['text', 'text'],
      ['separator', 'text'],
    ],
    gives: { kind: 'list', of: TEXT },
    examples: [['split("a; b; c", "; ")', '["a", "b", "c"]']],
    run: (value, separator) => (separator === '' ? letters(value) : value.split(separator)),
  }),
  text({
    name: 'string join',
    takes: [
      ['texts', 'list'],
      ['separator?', 'text'],
    ],
    gives: TEXT,
    examples: [['string join(["a", null, "b"], ", ")', '"a, b"']],
    run: (list, separator = '') => {
      const parts = list.filter((item) => item !== null);
      if (!parts.every((item) => typeof item === 'string')) return null;
      const length = parts.reduce<number>((total, part) => total + (part as string).length + separator.length, 0);
      return length > LIMITS.text ? null : parts.join(separator);
    },
  }),
  text({
    name: 'string',
    takes: [['value', ['text', 'number', 'yes-no', 'date', 'time', 'date-time', 'duration', 'months']]],
    gives: TEXT,
    examples: [
      ['string(12.50)', '"12.5"'],
      ['string(date("2026-11-23"))', '"2026-11-23"'],
    ],
    run: (value) => (isTemporal(value) ? value.toString() : String(value)),
  }),
];
