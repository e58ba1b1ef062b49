/** A colour on paper and in the dark: `ink` is read on paper and sheet, `on` is read on it, `wash` lies under text. */
interface Shades {
  readonly ink: string;
  readonly wash: string;
  readonly on: string;
}

/** A colour that a desk may be known by, in both themes. */
interface Accent {
  readonly light: Shades;
  readonly dark: Shades;
}

/**
 * The colours a desk may choose from. Each keeps a contrast of 4.5 to 1 with all it is read on
 * (WCAG 2.2, 1.4.3), in both themes.
 */
export const ACCENTS = {
  bottle: {
    light: { ink: '#1c5443', wash: '#e2ebe2', on: '#fffdf8' },
    dark: { ink: '#84c7aa', wash: '#22362e', on: '#10201a' },
  },
  harbour: {
    light: { ink: '#1d4f73', wash: '#dfe8ee', on: '#fffdf8' },
    dark: { ink: '#8fc0e3', wash: '#1f3342', on: '#0f1d27' },
  },
  heather: {
    light: { ink: '#64406f', wash: '#ece3ec', on: '#fffdf8' },
    dark: { ink: '#cda9d8', wash: '#372a3c', on: '#21152a' },
  },
  madder: {
    light: { ink: '#86304a', wash: '#f2e1e3', on: '#fffdf8' },
    dark: { ink: '#eca3b3', wash: '#3d252c', on: '#2a121a' },
  },
  peat: {
    light: { ink: '#654224', wash: '#efe5d8', on: '#fffdf8' },
    dark: { ink: '#dcb48c', wash: '#382c20', on: '#261a0e' },
  },
  slate: {
    light: { ink: '#3f4c57', wash: '#e4e6e6', on: '#fffdf8' },
    dark: { ink: '#b3c0cc', wash: '#2a3138', on: '#161c21' },
  },
} as const satisfies Readonly<Record<string, Accent>>;

export type AccentKey = keyof typeof ACCENTS;
export const ACCENT_KEYS = Object.keys(ACCENTS) as readonly AccentKey[];
