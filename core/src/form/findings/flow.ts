import { type Said, said, type Words } from '@tolvek/words';
import { type AccessPlan, classTold, isPlaced, type Leak, leaksOf, type Read, type Sink } from '../../access/index.ts';
import { fieldKeyOf, partsOf } from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import { type FormSink, sinksOf } from '../sinks.ts';
import type { Finding } from './finding.ts';

/** What protects the fields of a draft. */
export interface Guarded {
  /** The plan in force of its register. */
  readonly plan: AccessPlan;
  /** The id of the form: disclosures are of one form. */
  readonly form: string;
}

/**
 * What a draft would tell to somebody who may not read it: an error, with the way the value takes
 * and a step that takes it away. The same way can be allowed on purpose instead.
 */
export function flowFindings(
  design: FormDesign,
  { plan, form }: Guarded,
  groups: ReadonlyMap<string, Words>,
): readonly Finding[] {
  const disclosures = (plan.disclosures ?? []).filter((each) => each.form === form);
  const leaks = leaksOf({ fields: design.fields, sinks: sinksOf(design), plan, disclosures });
  if (leaks) return leaks.map((leak) => findingOf(leak, design, plan, groups));
  return [
    {
      severity: 'error',
      page: 'questions',
      at: 'access',
      message: said('flows:tooManyKinds'),
    },
  ];
}

/** The fields of a draft that have no place in the plan: they are closed until somebody gives them one. */
export function unplacedFindings({ fields }: Pick<FormDesign, 'fields'>, plan: AccessPlan): readonly Finding[] {
  const unplaced = fields.filter((field) => !isPlaced(plan, field));
  const [first] = unplaced;
  if (!first) return [];
  const place = unplaced.map(({ key }) => key);
  const labels = unplaced.map(({ label }) => label);
  return [
    {
      ...{ severity: 'caution', page: 'questions', at: first.key, place },
      message: said('flows:unplaced', { fields: labels, count: labels.length }),
    },
  ];
}

function findingOf(leak: Leak, design: FormDesign, plan: AccessPlan, groups: ReadonlyMap<string, Words>): Finding {
  const { sink: made, source, how, to, way } = leak;
  const sink = made as FormSink;
  const told = [source.key, ...(sink.readers.who === 'field' ? [sink.readers.field] : [])];
  const who = classTold(to, plan, told, (key) => groups.get(key) ?? key);

  const last = way.at(-1)?.field ?? source.key;
  return {
    severity: 'error',
    page: sink.page,
    at: sink.at,
    message: said(how === 'value' ? 'flows:tellsValue' : 'flows:tellsSomething', {
      place: sink.says(nameIn(design, last), howRead(sink, last)),
      field: source.label,
      who,
    }),
    ...(sink.fix ? { fix: sink.fix } : {}),
    way: [
      ...way.map((step) => step.sink.says(nameIn(design, step.field), howRead(step.sink, step.field))),
      readAt(sink, design, who),
    ],
    ...protecting(sink, source.key, plan),
    ...(isPlaced(plan, source) ? {} : { place: [fieldKeyOf(source.key)] }),
    allow: { sink: sink.id, text: sink.text, source: source.key, what: how },
  };
}

export const nameIn = ({ fields }: FormDesign, key: string): string =>
  partsOf(fields).find((field) => field.key === key)?.label ?? key;

export const howRead = ({ reads }: Sink, field: string): Read['how'] =>
  reads.some((read) => read.field === field && read.how === 'value') ? 'value' : 'verdict';

/** Who reads what is made at a place, as the end of its way. */
function readAt({ kind, readers }: FormSink, design: FormDesign, who: Words): Said {
  if (readers.who === 'field') return said('flows:readBy', { field: nameIn(design, readers.field), who });
  if (readers.who === 'touching') return said('flows:toldChanging', { field: nameIn(design, readers.field), who });
  if (kind === 'routing') return said('flows:routingTells', { who });
  if (kind === 'deadline') return said('flows:deadlineTells', { who });
  if (kind === 'step') return said('flows:stepTells', { who });
  if (readers.who === 'changers') return said('flows:toldChangers', { who });
  if (readers.who === 'anybody') return said('flows:toldRequesters', { who });
  return said('flows:shownTo', { who });
}

/** The field that is made there, when rules that name its source could name it as well. */
function protecting({ readers }: FormSink, source: string, { rules }: AccessPlan): Pick<Finding, 'protect'> {
  const isNamed = rules.some((rule) => rule.fields !== 'all' && rule.fields.includes(source));
  return (readers.who === 'field' || readers.who === 'touching') && isNamed
    ? { protect: { source, field: readers.field } }
    : {};
}
