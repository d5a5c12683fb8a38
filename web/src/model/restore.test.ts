import { describe, expect, it } from 'vitest';
import old from '../../../demo/old/design-first-names.json';
import type { RawDesign } from '../schema/types';
import { slot } from '../testing/nook';
import { restoreDesign, restorePath } from './restore';

describe('what an earlier program left in the browser', () => {
  it('gets today’s names, values and all', () => {
    const restored = restoreDesign(old as unknown as RawDesign);
    expect(restored.driver_array).toEqual({
      coils: 'one_loaded',
      idle_coil_resistance: '4.7 ohm',
      added_mass: '5 g',
    });
    expect(restored.body?.panels).toEqual([{ face: 'front', layers: 2 }]);
    expect(restored.body?.fold?.panels).toEqual([{ at: '140 mm' }]);
    expect(Object.keys(restored)).not.toContain('motor');
  });

  it('stays as it is where it has them already', () => {
    expect(restoreDesign(slot)).toEqual(slot);
    expect(restoreDesign(restoreDesign(old as unknown as RawDesign))).toEqual(
      restoreDesign(old as unknown as RawDesign),
    );
  });

  it('has its paths lifted too', () => {
    expect(restorePath('motor.isobaric.volume')).toBe('driver_array.isobaric.volume');
    expect(restorePath('body.fold.boards[2].at')).toBe('body.fold.panels[2].at');
    expect(restorePath('enclosure.front.ports[0].diameter')).toBe('enclosure.front.ports[0].diameter');
  });
});
