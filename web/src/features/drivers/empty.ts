import type { RawDriver } from '../../schema/types';

export function emptyDriver(): RawDriver {
  return { format: 'oak-drum/driver', version: 2, name: '' } as RawDriver;
}
