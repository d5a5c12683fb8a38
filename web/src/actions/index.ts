import type { Action } from './action';
import { archive } from './archive';
import { switchConditions } from './conditions';
import { duplicate } from './duplicate';
import { goes } from './go';
import { guide } from './guide';
import { lanes } from './lanes';
import { nudges } from './nudge';
import { redo } from './redo';
import { shelf } from './shelf';
import { shows } from './show';
import { switchTheme } from './switch_theme';
import { undo } from './undo';
import { nextVariant, previousVariant } from './walk_variants';
import { windows } from './windows';

/** Every command, in the order of the sheet of keys. */
export const ACTIONS: Action[] = [
  undo,
  redo,
  duplicate,
  archive,
  nextVariant,
  previousVariant,
  ...shelf,
  ...nudges,
  ...windows,
  switchConditions,
  ...lanes,
  ...goes,
  switchTheme,
  ...shows,
  ...guide,
];
