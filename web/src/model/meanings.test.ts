import { expect, it } from 'vitest';
import { meaningIn, meanings } from './meanings';
import { allFields, fieldAt } from './units';

it('is told once it has been fetched, for every field, wherever it stands in a list', async () => {
  const diameter = fieldAt('enclosure.ports[1].diameter');
  expect(meaningIn(meanings.snapshot(), diameter)).toBeUndefined();
  await meanings.load();
  expect(meaningIn(meanings.snapshot(), diameter)).toMatch(/diameter/i);
  const silent = allFields.filter((field) => !meaningIn(meanings.snapshot(), field));
  expect(silent.map(({ path }) => path)).toEqual([]);
});
