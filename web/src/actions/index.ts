import type { Action } from './action';
import { archive } from './archive';
import { duplicate } from './duplicate';
import { nudges } from './nudge';
import { redo } from './redo';
import { showKeys } from './show_keys';
import { switchTheme } from './switch_theme';
import { undo } from './undo';
import { nextVariant, previousVariant } from './walk_variants';

/** Every command, in the order of the sheet of keys. */
export const ACTIONS: Action[] = [
  undo,
  redo,
  duplicate,
  archive,
  nextVariant,
  previousVariant,
  ...nudges,
  switchTheme,
  showKeys,
];
