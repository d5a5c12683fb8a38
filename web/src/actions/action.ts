import type { OnBench, Workbench } from '../model/workbench';
import type { RawDesign } from '../schema/types';

/** The windows over the workbench, by their names in the address. */
export const WINDOWS = [
  'brief',
  'brief-history',
  'driver',
  'new-driver',
  'family',
  'new-cabinet',
  'sweep',
  'spread',
  'scale',
  'kit',
  'compare',
  'workings',
  'history',
  'archived',
] as const;

/** What opens over the workbench; slow motion plays within the drawing. */
export type Window = (typeof WINDOWS)[number] | 'motion';

/** What opens wherever one is. */
export type Sheet = 'palette' | 'keys' | 'units' | 'glossary';

/** What a command can reach. */
export interface CommandContext {
  /** The workbench on screen, if it is. */
  workbench: Workbench | null;
  /** The build it is of. */
  build: string | null;
  /** What a value of a variant comes to where it follows from others, SI; null where it leads. */
  follows: (id: string, path: string) => number | null;
  /** Makes a new variant on the server and puts it on the workbench. */
  addVariant: (design: RawDesign) => void;
  switchTheme: () => void;
  /** Opens something over the workbench. */
  open: (window: Window) => void;
  show: (sheet: Sheet) => void;
  /** Goes to another page. */
  go: (address: string) => void;
}

/** One command of the user; buttons, shortcuts and the sheet of keys are made from these. */
export interface Action {
  id: string;
  name: string;
  /** Such as `mod+shift+z`; mod is Ctrl, or Command on a Mac. */
  keys: string[];
  when: (context: CommandContext) => boolean;
  run: (context: CommandContext) => void;
}

export function activeVariant({ workbench }: CommandContext): OnBench | undefined {
  const id = workbench?.snapshot().activeId;
  return id ? workbench?.find(id) : undefined;
}
