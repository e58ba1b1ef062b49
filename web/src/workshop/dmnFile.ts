import { handlerRule } from '@tolvek/contract';
import type { HandlerRule } from '@tolvek/core/assignment';
import { type DmnTable, namesOf } from '@tolvek/core/routing';
import { DmnModdle, type Element } from 'dmn-moddle';

/** Where the elements of DMN 1.5 are named; those of 1.3, which differ in nothing that a table has, are what is read. */
const DMN_1_5 = 'https://www.omg.org/spec/DMN/20230324/MODEL/';
const DMN_1_3 = 'https://www.omg.org/spec/DMN/20191111/MODEL/';
/** The same of every version since 1.1, as the value of an attribute. */
const ANY_VERSION = /(=\s*["'])https?:\/\/www\.omg\.org\/spec\/DMN\/\d{8}\/(?:MODEL\/|dmn\.xsd)(?=["'])/g;

/** A decision table as the XML of a DMN 1.5 file, with the input data it reads. */
export async function dmnFileOf(table: DmnTable): Promise<string> {
  const moddle = new DmnModdle();
  const make = (type: string, more: object): Element => moddle.create(`dmn:${type}`, more);
  const literal = (text: string, typeRef?: string): Element =>
    make('LiteralExpression', { ...(typeRef ? { typeRef } : {}), text });
  const tests = (text: string): Element => make('UnaryTests', { text });
  const hasNotes = table.rules.some(({ note }) => note !== '');
  const read = namesOf(table).map((name, at) => ({ name, id: `data_${at + 1}` }));
  const decisionTable = make('DecisionTable', {
    ...{ id: 'table', hitPolicy: table.hitPolicy },
    input: table.inputs.map(({ id, label, text, type }) =>
      make('InputClause', { id, label, inputExpression: literal(text, type) }),
    ),
    output: table.outputs.map(({ name, type, values }, at) =>
      make('OutputClause', {
        ...{ id: `output_${at + 1}`, name, typeRef: type },
        ...(values ? { outputValues: tests(values) } : {}),
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
  const decision = make('Decision', {
    ...{ id: 'decision', name: table.name },
    variable: make('InformationItem', { name: table.name }),
    informationRequirement: read.map(({ id }) =>
      make('InformationRequirement', {
        id: `reads_${id}`,
        requiredInput: make('DMNElementReference', { href: `#${id}` }),
      }),
    ),
    decisionLogic: decisionTable,
  });
  const definitions = make('Definitions', {
    ...{ id: 'routing', name: table.name, namespace: 'urn:tolvek:routing' },
    drgElement: [
      ...read.map(({ id, name }) => make('InputData', { id, name, variable: make('InformationItem', { name }) })),
      decision,
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

/** How a handler is found, from the JSON that stands for it in a file; null where it is anything else. */
export function handlerIn(json: string): HandlerRule | null {
  try {
    return handlerRule.safeParse(JSON.parse(json)).data ?? null;
  } catch {
    return null;
  }
}
