import type { RawDriver } from '../../api/types';

export function emptyDriver(): RawDriver {
  return { format: 'oak-drum/driver', version: 1, name: '' } as RawDriver;
}
