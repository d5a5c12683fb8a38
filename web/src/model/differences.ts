// Where designs differ.

import type { RawDesign } from '../schema/types';
import { same, unordered } from './design';
import { asRead } from './preferences';
import { fieldAt, isField, shown } from './units';

type Branch = Record<string, unknown>;

function walk(place: string, values: unknown[], found: Map<string, unknown[]>): void {
  const [first, ...others] = values;
  if (others.every((other) => same(first, other))) return;
  const branches = values.filter((value) => typeof value === 'object' && value !== null) as Branch[];
  if (
    branches.length !== values.filter((value) => value !== undefined && value !== null).length ||
    !branches.length
  ) {
    found.set(place, values);
    return;
  }
  const names = new Set(branches.flatMap((branch) => Object.keys(branch)));
  for (const name of names) {
    const inner = values.map((value) => (value as Branch | null | undefined)?.[name]);
    walk(place ? `${place}.${name}` : name, inner, found);
  }
}

/** Places at which designs, or other documents, differ, with what stands there in each. */
export function differences(documents: readonly object[]): { place: string; values: string[] }[] {
  const found = new Map<string, unknown[]>();
  walk(
    '',
    documents.map((document) => unordered(document as RawDesign)),
    found,
  );
  return [...found].map(([place, values]) => ({
    place,
    values: values.map((value) => written(place, value)),
  }));
}

function pathOf(place: string): string {
  return place.replace(/\.(\d+)(?=\.|$)/g, '[$1]');
}

const NAMES: Record<string, string> = {
  name: 'Name',
  notes: 'Notes',
  'driver.name': 'Driver',
  'driver.maker': 'Maker',
  'driver.notes': 'Notes on the driver',
  'enclosure.family': 'Kind of cabinet',
  'enclosure.fill': 'Fill',
  'enclosure.ports': 'Ports',
  'enclosure.front': 'Front chamber',
  'enclosure.radiator': 'Radiators',
  'enclosure.passage': 'Line or horn',
  driver_array: 'Changes to the drivers',
  signal: 'Signal',
  'signal.filters': 'Filters',
  'signal.parts': 'Passive parts',
  'signal.amplifier': 'Amplifier',
  'signal.mains': 'Mains',
  space: 'Space',
};

/** What a place is called: its field's symbol where it is a quantity. */
export function nameOf(place: string): string {
  const path = pathOf(place);
  if (NAMES[place]) return NAMES[place];
  const [, list, at, inner] = /^signal\.(filters|parts)\.(\d+)\.(.+)$/.exec(place) ?? [];
  if (list && inner) {
    const name = isField(path) ? fieldAt(path).symbol : inner.replaceAll('_', ' ');
    return `${list === 'filters' ? 'Filter' : 'Part'} ${Number(at) + 1}: ${name}`;
  }
  if (!isField(path)) return place.split('.').at(-1)?.replaceAll('_', ' ') ?? place;
  const { symbol } = fieldAt(path);
  return path.startsWith('enclosure.front') ? `${symbol}, front` : symbol;
}

function written(place: string, value: unknown): string {
  if (value === undefined || value === null) return '–';
  if (typeof value === 'object')
    return (
      Object.values(value)
        .filter((one) => typeof one !== 'object')
        .join(', ') || 'given'
    );
  const path = pathOf(place);
  const typed = value as string | number;
  return shown(isField(path) ? asRead(typed, fieldAt(path)) : String(typed).replaceAll('_', ' '));
}
