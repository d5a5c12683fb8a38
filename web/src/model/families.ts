// The kinds of cabinets, from the core's table.

import type { RawDesign, RawEnclosure } from '../schema/types';
import tables from './quantities.json' with { type: 'json' };

export type Family = RawEnclosure['family'];

export interface FamilyEntry {
  id: Family;
  name: string;
  good: string;
  bad: string;
}

export const FAMILIES = tables.families as FamilyEntry[];

export function familyEntry(id: Family): FamilyEntry {
  return FAMILIES.find((family) => family.id === id) ?? (FAMILIES[0] as FamilyEntry);
}

const LINES: Family[] = ['line', 'mass_loaded_line', 'back_horn', 'slot_flare'];
const HORNS: Family[] = ['front_horn', 'tapped_horn'];
const BANDPASSES: Family[] = ['bandpass4', 'bandpass6_parallel', 'bandpass6_series'];

/** Whether the drawing is of a way that leads from the drivers to a mouth. */
export function hasWay(family: Family): boolean {
  return LINES.includes(family) || HORNS.includes(family);
}

export function hasTwoChambers(family: Family): boolean {
  return BANDPASSES.includes(family);
}

/** Whether ports lead out of the chamber behind the drivers, or end the line. */
export function hasRearPorts(family: Family): boolean {
  return ['ported', 'mass_loaded_line', 'bandpass6_parallel', 'bandpass6_series'].includes(family);
}

/** Whether a design holds what another kind of cabinet cannot do without, from an earlier try. */
export function holdsValuesFor({ enclosure }: RawDesign, family: Family): boolean {
  const needs: [boolean, unknown][] = [
    [hasWay(family), enclosure.passage?.segments?.length],
    [hasTwoChambers(family), enclosure.front?.volume && enclosure.front.ports?.length],
    [hasRearPorts(family), enclosure.ports?.length],
    [family === 'passive_radiator', enclosure.radiator],
    [family === 'aperiodic', enclosure.vent_resistance],
    [family === 'open_baffle', enclosure.baffle_path],
    [family === 'tapped_horn', enclosure.passage?.front_at],
    [!hasWay(family) && !['open_baffle', 'infinite_baffle'].includes(family), enclosure.volume],
  ];
  return needs.every(([needed, there]) => !needed || Boolean(there));
}

/** Which kind EBP leans to, common practice; the numbers decide, not the rule. */
export function leaning(ebp: number): { family: Family; words: string } {
  const rounded = Math.round(ebp);
  if (ebp < 50)
    return { family: 'sealed', words: `EBP ${rounded} Hz leans sealed (under 50, common practice).` };
  if (ebp > 100)
    return { family: 'ported', words: `EBP ${rounded} Hz leans ported (over 100, common practice).` };
  return {
    family: 'ported',
    words: `EBP ${rounded} Hz lies between sealed (under 50) and ported (over 100): compare both (common practice).`,
  };
}
