import {
  type AccessPlan,
  classInWords,
  groupsTold,
  type Leak,
  leaksOf,
  type Read,
  type Sink,
} from '../../access/index.ts';
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

const sentence = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

/**
 * What a draft would tell to somebody who may not read it: an error, with the way the value takes
 * and a step that takes it away. The same way can be allowed on purpose instead.
 */
export function flowFindings(
  design: FormDesign,
  { plan, form }: Guarded,
  groups: ReadonlyMap<string, string>,
): readonly Finding[] {
  const disclosures = (plan.disclosures ?? []).filter((each) => each.form === form);
  const leaks = leaksOf({ fields: design.fields, sinks: sinksOf(design), plan, disclosures });
  if (leaks) return leaks.map((leak) => findingOf(leak, design, plan, groups));
  return [
    {
      severity: 'error',
      page: 'questions',
      at: 'access',
      message:
        'The access plan tells so many kinds of people apart that what the form tells can’t be looked through. Name fewer groups in its rules.',
    },
  ];
}

function findingOf(leak: Leak, design: FormDesign, plan: AccessPlan, groups: ReadonlyMap<string, string>): Finding {
  const { sink: made, source, how, to, way } = leak;
  const sink = made as FormSink;
  const told = [source.key, ...(sink.readers.who === 'field' ? [sink.readers.field] : [])];
  const who = classInWords(to, groupsTold(plan, told), (key) => groups.get(key) ?? key);
  const name = `“${source.label}”`;
  const what = how === 'value' ? `what ${name} holds` : `something of what ${name} holds`;
  const last = way.at(-1)?.field ?? source.key;
  return {
    severity: 'error',
    page: sink.page,
    at: sink.at,
    message: `${sentence(sink.says(nameIn(design, last), howRead(sink, last)))} That tells ${what} to ${who}, who may not read it.`,
    ...(sink.fix ? { fix: sink.fix } : {}),
    way: [
      ...way.map((step) => sentence(step.sink.says(nameIn(design, step.field), howRead(step.sink, step.field)))),
      readAt(sink, design, who),
    ],
    ...protecting(sink, source.key, plan),
    allow: { sink: sink.id, text: sink.text, source: source.key, what: how },
  };
}

const nameIn = ({ fields }: FormDesign, key: string): string =>
  `“${fields.find((field) => field.key === key)?.label ?? key}”`;

const howRead = ({ reads }: Sink, field: string): Read['how'] =>
  reads.some((read) => read.field === field && read.how === 'value') ? 'value' : 'verdict';

/** Who reads what is made at a place, as the end of its way. */
function readAt({ kind, readers }: FormSink, design: FormDesign, who: string): string {
  if (readers.who === 'field') return `${nameIn(design, readers.field)} is read by ${who}.`;
  if (readers.who === 'touching') return `Whoever changes ${nameIn(design, readers.field)} is told, ${who} as well.`;
  if (kind === 'routing') return `Team, stage and due date tell which row it was, to ${who} as well.`;
  if (readers.who === 'changers') return `Whoever changes something is told, ${who} as well.`;
  if (readers.who === 'anybody') return `Whoever asks is told, and ${who} as well.`;
  return `It is shown to ${who}.`;
}

/** The field that is made there, when rules that name its source could name it as well. */
function protecting({ readers }: FormSink, source: string, { rules }: AccessPlan): Pick<Finding, 'protect'> {
  const isNamed = rules.some((rule) => rule.fields !== 'all' && rule.fields.includes(source));
  return (readers.who === 'field' || readers.who === 'touching') && isNamed
    ? { protect: { source, field: readers.field } }
    : {};
}
