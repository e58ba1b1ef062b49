/**
 * Decimal arithmetic on the numbers people type. A double carries up to 15 significant decimal digits unharmed; the
 * error creeps in when two of them are added or multiplied. These functions round each result back to 15 digits, so
 * that 0.1 + 0.2 is 0.3 and 1.1 × 3 is 3.3. Whole numbers in the safe range take the direct way.
 * Results that are not finite are null, as FEEL has no infinity.
 */
const tidy = (value: number): number | null => {
  if (Number.isSafeInteger(value)) return value;
  return Number.isFinite(value) ? Number(value.toPrecision(15)) : null;
};

export const add = (a: number, b: number): number | null => tidy(a + b);
export const subtract = (a: number, b: number): number | null => tidy(a - b);
export const multiply = (a: number, b: number): number | null => tidy(a * b);
export const divide = (a: number, b: number): number | null => (b === 0 ? null : tidy(a / b));
export const power = (a: number, b: number): number | null => tidy(a ** b);
