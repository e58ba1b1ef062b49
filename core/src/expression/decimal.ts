/**
 * Decimal arithmetic on the numbers people type. A double holds a decimal of up to 15 significant
 * digits unharmed, but adding or multiplying doubles does not: 0.1 + 0.2. So both sides are brought
 * to whole numbers of their smallest place, reckoned exactly, and brought back, as long as those
 * whole numbers are in the safe range (2^53); beyond it the result is rounded to 15 digits. Results
 * that are not finite are null, as FEEL has no infinity.
 */
const rounded = (value: number): number | null => (Number.isFinite(value) ? Number(value.toPrecision(15)) : null);

/** How many decimal places a number needs: 2 for 740.25, 7 for 1e-7. */
function placesOf(value: number): number {
  if (Number.isInteger(value)) return 0;
  // The usual few places are found by trying; that the number comes back the same says that nothing
  // was rounded.
  for (let places = 1, scale = 10; places <= 4; places += 1, scale *= 10) {
    const scaled = value * scale;
    if (Number.isSafeInteger(scaled) && scaled / scale === value) return places;
  }
  const [digits = '', exponent = '0'] = String(value).split('e');
  return Math.max(0, (digits.split('.')[1]?.length ?? 0) - Number(exponent));
}

function exactly(
  a: number,
  b: number,
  places: number,
  reckon: (a: number, b: number) => number,
  back: number,
): number | null {
  if (places > 15) return null;
  const scale = 10 ** places;
  const [x, y] = [Math.round(a * scale), Math.round(b * scale)];
  const result = reckon(x, y);
  return Number.isSafeInteger(x) && Number.isSafeInteger(y) && Number.isSafeInteger(result)
    ? result / 10 ** back
    : null;
}

export function add(a: number, b: number): number | null {
  const direct = a + b;
  if (Number.isSafeInteger(a) && Number.isSafeInteger(b) && Number.isSafeInteger(direct)) return direct;
  const places = Math.max(placesOf(a), placesOf(b));
  return exactly(a, b, places, (x, y) => x + y, places) ?? rounded(direct);
}

export const subtract = (a: number, b: number): number | null => add(a, -b);

export function multiply(a: number, b: number): number | null {
  const direct = a * b;
  if (Number.isSafeInteger(a) && Number.isSafeInteger(b) && Number.isSafeInteger(direct)) return direct;
  const places = Math.max(placesOf(a), placesOf(b));
  return exactly(a, b, places, (x, y) => x * y, 2 * places) ?? rounded(direct);
}

export const divide = (a: number, b: number): number | null => (b === 0 ? null : rounded(a / b));
export const power = (a: number, b: number): number | null => rounded(a ** b);

/** How a number that lies between two places is brought to one of them. */
export type Rounding = 'up' | 'down' | 'half up' | 'half down' | 'half even' | 'ceiling' | 'floor';

/**
 * A number rounded to decimal places (−15 to 15; null outside), exactly as its decimal digits say
 * (DMN 1.5, 10.3.4.3).
 */
export function roundTo(value: number, places: number, way: Rounding): number | null {
  if (!Number.isInteger(places) || Math.abs(places) > 15) return null;
  if (places >= 0 && places <= 6) {
    const scale = 10 ** places;
    const whole = value * scale;
    if (Number.isSafeInteger(whole) && whole / scale === value) return value + 0;
  }
  // Moving the point in the written number is exact; multiplying by a power of ten is not.
  const scaled = movePoint(value, places);
  const whole = Math.trunc(scaled);
  const rest = Math.abs(scaled - whole);
  const away = whole + Math.sign(value);
  const step = (): number => {
    switch (way) {
      case 'down':
        return whole;
      case 'up':
        return rest > 0 ? away : whole;
      case 'ceiling':
        return Math.ceil(scaled);
      case 'floor':
        return Math.floor(scaled);
      case 'half up':
        return rest >= 0.5 ? away : whole;
      case 'half down':
        return rest > 0.5 ? away : whole;
      case 'half even':
        return rest > 0.5 || (rest === 0.5 && whole % 2 !== 0) ? away : whole;
    }
  };
  const back = movePoint(step(), -places);
  return Number.isFinite(back) ? back + 0 : null;
}

/** A number times a power of ten, exactly: the point of its written form is moved. */
export function movePoint(value: number, places: number): number {
  const [digits = '0', exponent = '0'] = String(value).split('e');
  return Number(`${digits}e${Number(exponent) + places}`);
}

/**
 * What is left of a division that gives a whole number, with the sign of the divisor (DMN 1.5,
 * 10.3.4.5).
 */
export function modulo(a: number, b: number): number | null {
  if (b === 0) return null;
  const times = multiply(b, Math.floor(rounded(a / b) ?? 0));
  return times === null ? null : subtract(a, times);
}
