import { expect, it } from 'vitest';
import { ALL_DRIVERS, wantedIn, withWanted } from './wanted';

it('goes into the address and comes out again as it was', () => {
  const wanted = {
    find: '12 in',
    sort: 'fs',
    descending: true,
    in_stock: true,
    fs_max: 40.5,
    offset: 50,
  } as const;
  const params = withWanted(new URLSearchParams('show=archive'), wanted);
  expect(params.get('show')).toBe('archive');
  expect(wantedIn(params)).toEqual(wanted);
});

it('leaves nothing behind where nothing is looked for', () => {
  const before = new URLSearchParams('find=heron&fs_min=20&show=archive&sort=pe');
  expect(withWanted(before, { ...ALL_DRIVERS, find: '', in_stock: false, offset: 0 }).toString()).toBe(
    'show=archive',
  );
});

it('passes over what cannot be looked for', () => {
  expect(wantedIn(new URLSearchParams('fs_min=low&drum=1&open=brief'))).toEqual(ALL_DRIVERS);
});
