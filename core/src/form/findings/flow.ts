import { type AccessPlan, classInWords, groupsTold, type Leak, leaksOf } from '../../access/index.ts';
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
  if (leaks) return leaks.map((leak) => findingOf(leak, plan, groups));
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

function findingOf(
  { sink: made, source, how, to, way }: Leak,
  plan: AccessPlan,
  groups: ReadonlyMap<string, string>,
): Finding {
  const sink = made as FormSink;
  const told = [source.key, ...(sink.readers.who === 'field' ? [sink.readers.field] : [])];
  const who = classInWords(to, groupsTold(plan, told), (key) => groups.get(key) ?? key);
  const name = `“${source.label}”`;
  const what = how === 'value' ? `what ${name} holds` : `something of what ${name} holds`;
  return {
    severity: 'error',
    page: sink.page,
    at: sink.at,
    message: `${sentence(sink.says(way.length > 1 ? `what is made from ${name}` : name))} That tells ${what} to ${who}, who may not read it.`,
    ...(sink.fix ? { fix: sink.fix } : {}),
    way: waySaid({ sink, source, how, to, way }, who),
    ...protecting(sink, source.key, plan),
    allow: { sink: sink.id, text: sink.text, source: source.key, what: how },
  };
}

/** The field that is made there, when rules that name its source could name it as well. */
function protecting({ readers }: FormSink, source: string, { rules }: AccessPlan): Pick<Finding, 'protect'> {
  const isNamed = rules.some((rule) => rule.fields !== 'all' && rule.fields.includes(source));
  return readers.who === 'field' && isNamed ? { protect: { source, field: readers.field } } : {};
}

function waySaid({ way }: Leak, who: string): readonly string[] {
  let name = '';
  const steps = way.map(({ field, sink }) => {
    name = field;
    return sink.says(`“${name}”`);
  });
  return [...steps.map(sentence), sentence(`${who} reads it there`)];
}
