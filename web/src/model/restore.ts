// Documents and paths as an earlier program wrote them into this browser, lifted to today's names. Files and what the server
// keeps are lifted by the server.

import type { RawDesign } from '../schema/types';
import type { HeldVariant } from './documents';

const FIRST_NAMES: Readonly<Record<string, string>> = {
  motor: 'driver_array',
  boards: 'panels',
  brake_resistance: 'idle_coil_resistance',
};

function lifted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(lifted);
  if (value === 'one_braked') return 'one_loaded';
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [FIRST_NAMES[name] ?? name, lifted(inner)]),
  );
}

/** A design in today's names. */
export function restoreDesign(design: RawDesign): RawDesign {
  return lifted(design) as RawDesign;
}

/** A variant that was never sent; earlier programs called its content `design`. */
export function restoreVariant(wanted: unknown): HeldVariant {
  const { content, design, archived } = wanted as Partial<HeldVariant> & { design?: RawDesign };
  return { content: restoreDesign((content ?? design) as RawDesign), archived: archived ?? false };
}

/** The path of a field: `motor.added_mass` is `driver_array.added_mass`. */
export function restorePath(path: string): string {
  return path.replace(/[a-z_]+/g, (step) => FIRST_NAMES[step] ?? step);
}
