import { expect, it } from 'vitest';
import { readTranslators, writeTranslators } from './translators.ts';

const UNIT = { kind: 'label', field: 'visitor' } as const;

it('writes what the standard for translators asks for, and reads it back', async () => {
  const units = [
    { ...UNIT, id: 'field-visitor-label', source: 'Who & <what>?', target: '' },
    { ...UNIT, id: 'form-title', source: 'Come on site\n"now"', target: 'Kommen {visitor}' },
  ];
  const written = await writeTranslators(units, { from: 'en', to: 'de', noteOf: ({ kind }) => `A ${kind}` });
  // Word for word, as XLIFF 2 (OASIS) says: a document, a file, a unit for each text with its note and one segment.
  expect(written.replace(/>\s+</g, '><')).toBe(
    [
      '<xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.0" srcLang="en" trgLang="de"><file id="form">',
      '<unit id="field-visitor-label"><notes><note>A label</note></notes>',
      '<segment><source>Who &amp; &lt;what&gt;?</source></segment></unit>',
      '<unit id="form-title"><notes><note>A label</note></notes>',
      '<segment><source>Come on site\n"now"</source><target>Kommen {visitor}</target></segment></unit>',
      '</file></xliff>',
    ].join(''),
  );
  const read = await readTranslators(written);
  expect(read).toEqual({
    from: 'en',
    to: 'de',
    units: units.map(({ id, source, target }) => ({ id, source, target })),
  });
});

it('reads what a tool of translators makes of it: marks within a text, and more than one file', async () => {
  const made = `<?xml version="1.0" encoding="UTF-8"?>
    <xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.0" srcLang="en" trgLang="de-AT">
      <file id="form"><unit id="form-title"><segment state="final">
        <source>Come <pc id="1">on site</pc> now</source><target>Auf die <pc id="1">Station</pc> kommen</target>
      </segment></unit></file>
      <file id="more"><unit id="form-intro"><segment><source>Ask early.</source><target>Früh fragen.</target></segment></unit></file>
    </xliff>`;
  expect(await readTranslators(made)).toEqual({
    ...{ from: 'en', to: 'de-AT' },
    units: [
      { id: 'form-title', source: 'Come on site now', target: 'Auf die Station kommen' },
      { id: 'form-intro', source: 'Ask early.', target: 'Früh fragen.' },
    ],
  });
});

it.each(['', 'id,source,target', '<html><body>no</body></html>', '<xliff><file>', '{"resources":{}}'])(
  'says of what is no such file that it is none: %j',
  async (content) => {
    expect(await readTranslators(content)).toBeNull();
  },
);
