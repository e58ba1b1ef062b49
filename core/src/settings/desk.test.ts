import { describe, expect, it } from 'vitest';
import { ACCENTS, DESK, type DeskSettings, LINK_DAYS, NEW_DESK, signatureOf } from './index.ts';

const desk: DeskSettings = {
  ...NEW_DESK,
  ...{ name: 'Field Operations Desk', organisation: 'Skerrow Point', zone: 'Europe/Dublin' },
  sender: { name: 'The desk', address: 'desk@skerrow.example' },
};
const places = (change: Partial<DeskSettings>): readonly string[] =>
  DESK.findings({ ...desk, ...change }, null).map(({ at }) => at);

/** Relative luminance and contrast as WCAG 2.2 defines them. */
function luminance(colour: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((place) => {
    const part = Number.parseInt(colour.slice(place, place + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
const contrast = (one: string, other: string): number => {
  const [light = 0, dark = 0] = [luminance(one), luminance(other)].sort((a, b) => b - a);
  return (light + 0.05) / (dark + 0.05);
};

describe('the desk', () => {
  it('is sound once it has a name, a zone and an address that emails come from', () => {
    expect(places({})).toEqual([]);
    expect(DESK.findings(NEW_DESK, null).map(({ at }) => at)).toEqual(['name', 'sender.address']);
    expect(places({ zone: 'Mars/Olympus', name: '  ' })).toEqual(['name', 'zone']);
    expect(places({ sender: { name: '', address: 'desk' } })).toEqual(['sender.address']);
    for (const [use, [least, most]] of Object.entries(LINK_DAYS)) {
      const days = (count: number) => places({ links: { ...desk.links, [use]: count } });
      expect([days(least), days(most)]).toEqual([[], []]);
      for (const wrong of [least - 1, most + 1, least + 0.5, Number.NaN]) expect(days(wrong)).toEqual([`links.${use}`]);
    }
  });

  it('signs emails with its own words, or with its name and that of its house', () => {
    expect(signatureOf(desk)).toBe('Field Operations Desk, Skerrow Point');
    expect(signatureOf({ ...desk, organisation: '' })).toBe('Field Operations Desk');
    expect(signatureOf({ ...desk, signature: 'Yours, the desk' })).toBe('Yours, the desk');
  });

  it('names what differs between two states, setting by setting', () => {
    const after = { ...desk, name: 'Harbour desk', links: { ...desk.links, follow: 90 } };
    expect(DESK.compare(desk, after).map(({ at, before, after: now }) => [at, before, now])).toEqual([
      ['name', 'Field Operations Desk', 'Harbour desk'],
      ['links follow', '180', '90'],
    ]);
  });

  it('has colours that can be read on all they stand on, in both themes', () => {
    const grounds = { light: ['#f4efe4', '#fffdf8', '#ece5d6'], dark: ['#151a18', '#1c2320', '#111513'] } as const;
    const ink = { light: '#1f2926', dark: '#ece7da' } as const;
    for (const [name, accent] of Object.entries(ACCENTS))
      for (const theme of ['light', 'dark'] as const) {
        const { ink: shade, wash, on } = accent[theme];
        const pairs = [
          ...grounds[theme].map((ground) => [shade, ground] as const),
          [shade, wash],
          [on, shade],
          [ink[theme], wash],
        ] as const;
        for (const [one, other] of pairs)
          expect([name, theme, one, other, contrast(one, other) >= 4.5]).toEqual([name, theme, one, other, true]);
      }
  });
});
