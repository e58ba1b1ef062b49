import { parse as parseCel } from '@marcbachmann/cel-js';
import { type Compiled, compile, parseExpression, Scope, type Value } from '@tolvek/core/expression';
import { prepareWinner, type RoutingTable } from '@tolvek/core/routing';
import { seeded } from '@tolvek/demo';
import { evaluate as evaluateFeelin } from 'feelin';
import jsonLogic, { type RulesLogic } from 'json-logic-js';
import { Engine } from 'json-rules-engine';
import { type Figure, interleaved } from './figure.ts';

const RULES = 20;
const RECORDS = 20_000;
const INSTITUTES = ['corrin', 'tarnbay', 'merrow', 'station', 'other'];

interface Rule {
  readonly above: number;
  readonly from: string;
  readonly water: boolean;
  readonly least: number;
  readonly most: number;
}

interface Facts {
  readonly fee: number;
  readonly institute: string;
  readonly water: boolean;
  readonly nights: number;
}

const random = seeded(11);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const rules = Array.from({ length: RULES }, (): Rule => {
  const least = Math.floor(random() * 10);
  return {
    above: Math.floor(random() * 1_500),
    from: pick(INSTITUTES),
    water: random() < 0.5,
    least,
    most: least + Math.floor(random() * 8),
  };
});
const records = Array.from(
  { length: RECORDS },
  (): Facts => ({
    fee: Math.floor(random() * 200_000) / 100,
    institute: pick(INSTITUTES),
    water: random() < 0.5,
    nights: Math.floor(random() * 20),
  }),
);

const scope = new Scope([
  { name: 'fee', label: 'Fee', type: { kind: 'number' } },
  { name: 'institute', label: 'Institute', type: { kind: 'text' } },
  { name: 'water', label: 'Works on water', type: { kind: 'yes-no' } },
  { name: 'nights', label: 'Nights', type: { kind: 'number' } },
]);
const feel = rules.map(
  ({ above, from, water, least, most }) =>
    `fee > ${above} and institute = "${from}" and ${water ? 'water' : 'not(water)'} and nights between ${least} and ${most}`,
);
const slots: readonly (readonly Value[])[] = records.map(({ fee, institute, water, nights }) => [
  fee,
  institute,
  water,
  nights,
]);

/**
 * One contestant: the number of the rule that wins for the record at an index; `RULES` for none.
 */
type Contestant = (index: number) => number;

function compiled(): Contestant {
  const conditions = feel.map((text): Compiled => {
    const parsed = parseExpression(text);
    if (!parsed.ok) throw new Error(text);
    return compile(parsed.value, scope);
  });
  return (index) => {
    const values = slots[index] ?? [];
    for (let rule = 0; rule < RULES; rule += 1) if (conditions[rule]?.(values, null) === true) return rule;
    return RULES;
  };
}

function asTable(): Contestant {
  const outcome = { team: '', priority: 'normal', workingDays: 0, path: null } as const;
  const table: RoutingTable = {
    columns: ['fee', 'institute', 'water', 'nights'].map((input) => ({ id: input, label: input, input })),
    rows: rules.map(({ above, from, water, least, most }, index) => ({
      id: String(index),
      note: '',
      cells: { fee: `> ${above}`, institute: `"${from}"`, water: String(water), nights: `[${least}..${most}]` },
      outcome,
    })),
    otherwise: outcome,
  };
  const winner = prepareWinner(table, scope);
  return (index) => winner(slots[index] ?? []) - 1;
}

/** The loop a programmer would write for these rules. */
const byHand: Contestant = (index) => {
  const record = records[index] as Facts;
  for (let number = 0; number < RULES; number += 1) {
    const rule = rules[number] as Rule;
    if (
      record.fee > rule.above &&
      record.institute === rule.from &&
      record.water === rule.water &&
      record.nights >= rule.least &&
      record.nights <= rule.most
    )
      return number;
  }
  return RULES;
};

const feelin: Contestant = (index) => {
  for (let rule = 0; rule < RULES; rule += 1)
    if (evaluateFeelin(feel[rule] ?? '', records[index] as unknown as Record<string, unknown>).value === true)
      return rule;
  return RULES;
};

function jsonLogicRules(): Contestant {
  const logic = rules.map(
    ({ above, from, water, least, most }): RulesLogic => ({
      and: [
        { '>': [{ var: 'fee' }, above] },
        { '==': [{ var: 'institute' }, from] },
        { '==': [{ var: 'water' }, water] },
        { '<=': [least, { var: 'nights' }, most] },
      ],
    }),
  );
  return (index) => {
    for (let rule = 0; rule < RULES; rule += 1)
      if (jsonLogic.apply(logic[rule] as RulesLogic, records[index]) === true) return rule;
    return RULES;
  };
}

function cel(): Contestant {
  const parsed = rules.map(({ above, from, water, least, most }) =>
    parseCel(
      `fee > ${above}.0 && institute == "${from}" && water == ${water} && nights >= ${least}.0 && nights <= ${most}.0`,
    ),
  );
  return (index) => {
    for (let rule = 0; rule < RULES; rule += 1)
      if (parsed[rule]?.(records[index] as unknown as Record<string, unknown>) === true) return rule;
    return RULES;
  };
}

/** Rules by falling priority; the engine is stopped at the first that holds. */
function rulesEngine(): (index: number) => Promise<number> {
  const engine = new Engine();
  rules.forEach(({ above, from, water, least, most }, number) => {
    engine.addRule({
      priority: RULES - number,
      conditions: {
        all: [
          { fact: 'fee', operator: 'greaterThan', value: above },
          { fact: 'institute', operator: 'equal', value: from },
          { fact: 'water', operator: 'equal', value: water },
          { fact: 'nights', operator: 'greaterThanInclusive', value: least },
          { fact: 'nights', operator: 'lessThanInclusive', value: most },
        ],
      },
      event: { type: String(number) },
      onSuccess: () => engine.stop(),
    });
  });
  return async (index) => {
    const { events } = await engine.run({ ...(records[index] as Facts) });
    return events[0] ? Number(events[0].type) : RULES;
  };
}

/**
 * µs for a record, over `count` records; each must answer as the loop written by hand does.
 */
async function rate(
  name: string,
  count: number,
  contestant: (index: number) => number | Promise<number>,
): Promise<number> {
  for (let index = 0; index < Math.min(count, 200); index += 1) {
    const [got, wanted] = [await contestant(index), byHand(index)];
    if (got !== wanted) throw new Error(`${name} chose rule ${got} for record ${index}, not ${wanted}.`);
  }
  const began = performance.now();
  if (count === RECORDS) for (let index = 0; index < count; index += 1) contestant(index);
  else for (let index = 0; index < count; index += 1) await contestant(index);
  return ((performance.now() - began) * 1_000) / count;
}

/**
 * 20 rules over 20,000 records, the first that holds wins: beside the loop written by hand, and
 * beside peers; slower ones are measured on fewer records.
 */
export async function measureRules(): Promise<readonly Figure[]> {
  const conditions = compiled();
  const table = asTable();
  const byLoop = () => rate('the loop by hand', RECORDS, byHand);
  const ours = () => rate('conditions', RECORDS, conditions);
  const what = `${RULES} rules over ${RECORDS.toLocaleString('en-IE')} records, µs a record`;
  const logic = jsonLogicRules();
  const engine = rulesEngine();
  const celRules = cel();
  return [
    await interleaved(`${what}, as conditions; limit: a loop written by hand`, 4, ours, byLoop),
    await interleaved(
      `${what}, as a routing table; limit: a loop written by hand`,
      3,
      () => rate('table', RECORDS, table),
      byLoop,
    ),
    await interleaved(`${what}; limit: feelin`, 1, ours, () => rate('feelin', 100, feelin)),
    await interleaved(`${what}; limit: json-logic-js`, 1, ours, () => rate('json-logic-js', RECORDS, logic)),
    await interleaved(`${what}; limit: json-rules-engine`, 1, ours, () => rate('json-rules-engine', 300, engine)),
    await interleaved(`${what}; limit: cel-js`, 1, ours, () => rate('cel-js', RECORDS, celRules)),
  ];
}
