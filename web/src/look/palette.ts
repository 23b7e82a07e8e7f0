/**
 * Every colour of the screens, by daylight and by night: the kit's theme and the part in the round both take theirs from here, so that no
 * other file needs to name one. Daylight is warm paper and graphite ink; yellow is for tags and for what is in hand, and for nothing else.
 */
export const PALETTE = {
  /** Ground of the page, and of sheets and fields on it. */
  paper: ['#f3efe6', '#16181b'],
  sheet: ['#fbf9f4', '#1d2024'],
  field: ['#ffffff', '#25292e'],
  /** Lettering: strong, quiet. */
  ink: ['#22262b', '#ece8de'],
  quiet: ['#585e66', '#a9afb6'],
  /** Lines between things, and round controls. */
  rule: ['#d8d2c3', '#41474e'],
  'rule-soft': ['#e6e0d2', '#2d3237'],
  edge: ['#8d9096', '#7b828a'],
  hover: ['#e9e3d4', '#30353b'],
  trough: ['#e0d9c8', '#363b41'],
  /** What is in hand. */
  yellow: ['#f6bd0b', '#f6bd0b'],
  'yellow-edge': ['#c79500', '#c79500'],
  'on-yellow': ['#2b2200', '#2b2200'],
  hand: ['#fff5d6', '#3b3318'],
  'hand-soft': ['#fffdf6', '#22221d'],
  stripe: ['#f3ecdb', '#262a2e'],
  /** What is said. */
  error: ['#a8320f', '#ff9d7d'],
  'error-ground': ['#fbe7df', '#45190c'],
  'error-ink': ['#7d2309', '#ffcab8'],
  warning: ['#7a5200', '#e6b95f'],
  /** Drawings: metal cut and seen, hollow, tool, thread, holding. */
  hatch: ['#8f9296', '#7d848b'],
  metal: ['#d9dbda', '#4d545b'],
  hollow: ['#fffdf6', '#1d2024'],
  tool: ['#dfe1e1', '#757d85'],
  thread: ['#65458f', '#c0a4ea'],
  holding: ['#8f5a00', '#e0a24a'],
  /** The part in the round. */
  part: ['#d3d6d7', '#8f979e'],
  'part-hollow': ['#8f959a', '#59616a'],
  'part-faded': ['#bfc3c6', '#798188'],
  'part-edge': ['#22262b', '#0c0d0f'],
  'part-ground': ['#f7f4ed', '#22262a'],
  'part-ground-low': ['#ece6d8', '#191c1f'],
  /** Surfaces by the tool that cut them, in the order of the tools. */
  'cut-1': ['#7fa3b8', '#6c93aa'],
  'cut-2': ['#b98f86', '#a8786e'],
  'cut-3': ['#8fae8a', '#769a70'],
  'cut-4': ['#a795bd', '#9280ad'],
  'cut-5': ['#b7a47a', '#9d8a5e'],
  'cut-6': ['#7fb3ab', '#659c93'],
  'cut-7': ['#b78aa5', '#a07090'],
  'cut-8': ['#8c94a0', '#79828f'],
  stock: ['#6d6a5f', '#a39d8c'],
  jaw: ['#c9b48f', '#8d7a52'],
  rapid: ['#4b5158', '#c3c9cf'],
  'rapid-hand': ['#c08f00', '#f6d565'],
} as const satisfies Record<string, readonly [string, string]>;

export type Ink = keyof typeof PALETTE;
export type ColourMode = 'light' | 'dark';

/** A colour as it is written in drawings; it follows the theme by itself. */
export const ink = (name: Ink): string => `var(--yp-colors-${name})`;

/** The colour itself, for pictures that know no style sheet. */
export const paint = (name: Ink, mode: ColourMode): string => PALETTE[name][mode === 'light' ? 0 : 1];
