import type { RawAnswers } from '@tolvek/core/register';

/**
 * A generator of numbers from 0 to 1 that always makes the same ones for the same seed
 * (mulberry32).
 */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const FIRST = [
  'Aoife',
  'Jonas',
  'Mirela',
  'Hugo',
  'Sanne',
  'Teodor',
  'Nadia',
  'Callum',
  'Elke',
  'Rafferty',
  'Ines',
  'Magnus',
  'Orla',
  'Benno',
  'Tamsin',
  'Viktor',
];
const LAST = [
  'Marlowe',
  'Eide',
  'Kovalik',
  'Tranter',
  'Osei-Berg',
  'Ludlow',
  'Ferrand',
  'Skarsgate',
  'Whelan-Roe',
  'Dragomir',
  'Pettifer',
  'Hollis',
  'Aldane',
  'Ruiz-Moor',
];
const REASONS = [
  'Inspection of the pier crane before the winter lifts; Estates expects them.',
  'Two days in the wet lab with the outer bay samples.',
  'Repair of the sea water intake, north basin.',
  'Survey of the kelp transects with the station’s team.',
  'Calibration of the tide gauge on the pontoon.',
  'Visit with four students, tour of the aquarium hall.',
  'Service of the diving compressor.',
  'Meeting about next year’s vessel schedule.',
  'Installation of the new weather mast on the roof.',
  'Handing over the mooring buoys in store 3.',
];
const NOTES = [
  'Carries an adrenaline pen for wasp stings.',
  'Hearing aid; please speak facing him.',
  'Recovering from a knee operation, no ladders.',
  'Diabetic; needs a fridge for insulin.',
];
const FEES = ['', '', '', '120', '240.00', '380', '540', '740.00', '1,148.00', '2,300'];

/** One plausible visit, asked about on a day given as days since 1970. */
export function visit(random: () => number, day: number, institute: string): RawAnswers {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const date = (offset: number): string => new Date((day + offset) * 86_400_000).toISOString().slice(0, 10);
  const arrival = 2 + Math.floor(random() * 12);
  const departure = arrival + Math.floor(random() * 4);
  const water = random() < 0.28;
  const note = random() < 0.2 ? pick(NOTES) : '';
  return {
    visitor: `${pick(FIRST)} ${pick(LAST)}`,
    institute,
    reason: pick(REASONS),
    arrival: date(arrival),
    departure: date(departure),
    works_on_water: water,
    ...(water ? { survival_until: date(departure + 40 + Math.floor(random() * 300)) } : {}),
    fee: pick(FEES),
    medical_note: note,
  };
}
