import { describe, expect, it } from 'vitest';
import { emptyDriver } from './empty';
import { adopted, takenBack, withSource, withValue } from './source';

describe('where values come from', () => {
  const stated = { ...emptyDriver(), mms: '200 g', bl: '12 T m' };

  it('a value that is taken over keeps the stated one and gives it back', () => {
    const taken = adopted(stated, 'mms', '118 g');
    expect(taken.mms).toBe('118 g');
    expect(taken.sources?.mms).toMatchObject({ kind: 'derived', was: '200 g' });
    expect(takenBack(taken, 'mms')).toEqual(stated);
    expect(takenBack(stated, 'mms')).toEqual(stated);
  });

  it('typing over a derived value makes it stated; a measured one stays measured', () => {
    const taken = adopted(stated, 'mms', '118 g');
    expect(withValue(taken, 'mms', '120 g')).toEqual({ ...stated, mms: '120 g' });
    const measured = withSource(stated, 'mms', { kind: 'measured', on: '2026-11-01' });
    expect(withValue(measured, 'mms', '121 g').sources?.mms?.kind).toBe('measured');
    expect(withValue(measured, 'mms', null)).toEqual({ ...emptyDriver(), bl: '12 T m' });
  });
});
