import { followerPlans, handlerRule, rowLengths } from '@tolvek/contract';
import type { HandlerRule } from '@tolvek/core/assignment';
import type { RowLength } from '@tolvek/core/deadline';
import { type DmnTable, type FollowerPlan, namesOf } from '@tolvek/core/routing';
import { DmnModdle, type Element } from 'dmn-moddle';

/** Where the elements of DMN 1.5 are named; those of 1.3, which differ in nothing that a table has, are what is read. */
const DMN_1_5 = 'https://www.omg.org/spec/DMN/20230324/MODEL/';
const DMN_1_3 = 'https://www.omg.org/spec/DMN/20191111/MODEL/';
/** The same of every version since 1.1, as the value of an attribute. */
const ANY_VERSION = /(=\s*["'])https?:\/\/www\.omg\.org\/spec\/DMN\/\d{8}\/(?:MODEL\/|dmn\.xsd)(?=["'])/g;

/** Decision tables as the XML of a DMN 1.5 file, with the input data they read. */
export async function dmnFileOf(name: string, tables: readonly DmnTable[]): Promise<string> {
  const moddle = new DmnModdle();
  const make = (type: string, more: object): Element => moddle.create(`dmn:${type}`, more);
  const literal = (text: string, typeRef?: string): Element =>
    make('LiteralExpression', { ...(typeRef ? { typeRef } : {}), text });
  const tests = (text: string): Element => make('UnaryTests', { text });
  const read = [...new Set(tables.flatMap(namesOf))].map((each, at) => ({ name: each, id: `data_${at + 1}` }));
  const tableOf = (table: DmnTable, suffix: string, hasNotes: boolean): Element =>
    make('DecisionTable', {
      ...{ id: `table${suffix}`, hitPolicy: table.hitPolicy },
      input: table.inputs.map(({ id, label, text, type }) =>
        make('InputClause', { id, label, inputExpression: literal(text, type) }),
      ),
      output: table.outputs.map(({ name: called, type, values, otherwise }, at) =>
        make('OutputClause', {
          ...{ id: `output${suffix}_${at + 1}`, name: called, typeRef: type },
          ...(values ? { outputValues: tests(values) } : {}),
          ...(otherwise ? { defaultOutputEntry: literal(otherwise) } : {}),
        }),
      ),
      ...(hasNotes ? { annotation: [make('RuleAnnotationClause', { name: 'Why' })] } : {}),
      rule: table.rules.map(({ id, note, inputs, outputs }) =>
        make('DecisionRule', {
          id,
          inputEntry: inputs.map(tests),
          outputEntry: outputs.map((text) => literal(text)),
          ...(hasNotes ? { annotationEntry: [make('RuleAnnotation', { text: note })] } : {}),
        }),
      ),
    });
  const decisions = tables.map((table, at) => {
    const suffix = tables.length > 1 ? `_${at + 1}` : '';
    const names = namesOf(table);
    return make('Decision', {
      ...{ id: `decision${suffix}`, name: table.name },
      variable: make('InformationItem', { name: table.name }),
      informationRequirement: read
        .filter((each) => names.includes(each.name))
        .map(({ id }) =>
          make('InformationRequirement', {
            id: `reads${suffix}_${id}`,
            requiredInput: make('DMNElementReference', { href: `#${id}` }),
          }),
        ),
      decisionLogic: tableOf(
        table,
        suffix,
        table.rules.some(({ note }) => note !== ''),
      ),
    });
  });
  const definitions = make('Definitions', {
    ...{ id: 'routing', name, namespace: 'urn:tolvek:routing' },
    drgElement: [
      ...read.map((each) => make('InputData', { ...each, variable: make('InformationItem', { name: each.name }) })),
      ...decisions,
    ],
  });
  const { xml } = await moddle.toXML(definitions, { format: true });
  return xml.replace(DMN_1_3, DMN_1_5);
}

/** What is read of an element; all of it may be missing. */
interface Given extends Element {
  readonly id?: string;
  readonly name?: string;
  readonly label?: string;
  readonly description?: string;
  readonly text?: string;
  readonly typeRef?: string;
  readonly hitPolicy?: string;
  readonly drgElement?: readonly Given[];
  readonly decisionLogic?: Given;
  readonly input?: readonly Given[];
  readonly output?: readonly Given[];
  readonly rule?: readonly Given[];
  readonly inputExpression?: Given;
  readonly outputValues?: Given;
  readonly defaultOutputEntry?: Given;
  readonly inputEntry?: readonly Given[];
  readonly outputEntry?: readonly Given[];
  readonly annotationEntry?: readonly Given[];
}

/** The decision tables of a DMN file, of any version from 1.1 on. @throws where it is none */
export async function dmnTablesIn(xml: string): Promise<readonly DmnTable[]> {
  const { rootElement } = await new DmnModdle().fromXML(xml.replaceAll(ANY_VERSION, `$1${DMN_1_3}`));
  return ((rootElement as Given).drgElement ?? []).flatMap(({ name = '', decisionLogic: table }) =>
    table?.$type === 'dmn:DecisionTable' ? [tableIn(name, table)] : [],
  );
}

const tableIn = (name: string, { hitPolicy = '', input = [], output = [], rule = [] }: Given): DmnTable => ({
  ...{ name, hitPolicy },
  inputs: input.map(({ id = '', label = '', inputExpression }) => ({
    ...{ id, label },
    text: inputExpression?.text ?? '',
    type: inputExpression?.typeRef ?? '',
  })),
  outputs: output.map(({ name: called = '', label = '', typeRef = '', outputValues, defaultOutputEntry }) => ({
    ...{ name: called, label, type: typeRef },
    values: outputValues?.text ?? '',
    otherwise: defaultOutputEntry?.text ?? '',
  })),
  rules: rule.map(({ id = '', description = '', inputEntry = [], outputEntry = [], annotationEntry = [] }) => ({
    id,
    note: annotationEntry.map(({ text = '' }) => text).find((text) => text !== '') ?? description,
    inputs: inputEntry.map(({ text = '' }) => text),
    outputs: outputEntry.map(({ text = '' }) => text),
  })),
});

/** What JSON in a file stands for; null where it is anything else. */
function inJson<What>(json: string, read: (value: unknown) => What | undefined): What | null {
  try {
    return read(JSON.parse(json)) ?? null;
  } catch {
    return null;
  }
}

/** How a handler is found. */
export const handlerIn = (json: string): HandlerRule | null =>
  inJson(json, (value) => handlerRule.safeParse(value).data);

/** How long deadlines are. */
export const deadlinesIn = (json: string): readonly RowLength[] | null =>
  inJson(json, (value) => rowLengths.safeParse(value).data);

/** Who follows. */
export const followersIn = (json: string): readonly FollowerPlan[] | null =>
  inJson(json, (value) => followerPlans.safeParse(value).data);
