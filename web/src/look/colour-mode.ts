import { create } from 'zustand';
import type { ColourMode } from './palette.ts';

/** What somebody chose; `system` follows the computer's own setting. */
export type ColourChoice = ColourMode | 'system';

const KEY = 'yellow-pin/colours';
const dark = window.matchMedia('(prefers-color-scheme: dark)');

function kept(): ColourChoice {
  try {
    const text = localStorage.getItem(KEY);
    return text === 'light' || text === 'dark' ? text : 'system';
  } catch {
    return 'system';
  }
}

const modeOf = (choice: ColourChoice): ColourMode =>
  choice === 'system' ? (dark.matches ? 'dark' : 'light') : choice;

function show(mode: ColourMode): void {
  const { classList, style } = document.documentElement;
  classList.toggle('dark', mode === 'dark');
  classList.toggle('light', mode === 'light');
  style.colorScheme = mode;
}

interface ColourState {
  choice: ColourChoice;
  mode: ColourMode;
  choose(choice: ColourChoice): void;
}

/** Light or dark: chosen by hand and remembered in this browser, else as the system has it. */
export const useColours = create<ColourState>()((set, get) => {
  const take = (choice: ColourChoice): void => {
    const mode = modeOf(choice);
    show(mode);
    set({ choice, mode });
  };
  dark.addEventListener('change', () => get().choice === 'system' && take('system'));
  const choice = kept();
  show(modeOf(choice));
  return {
    choice,
    mode: modeOf(choice),
    choose: (next) => {
      try {
        if (next === 'system') localStorage.removeItem(KEY);
        else localStorage.setItem(KEY, next);
      } catch {
        // The browser keeps nothing: the choice holds until the page is left.
      }
      take(next);
    },
  };
});
