import { describe, expect, it } from 'vitest';
import { withFamily, withValue } from '../model/design';
import { slot } from '../testing/nook';
import { report, sealedReport, withFigures } from '../testing/report';
import { layOut } from './geometry';

const sized = (litres: number) => withValue(slot, 'enclosure.volume', `${litres} l`);

describe('the section', () => {
  it.each([4, 20, 44, 200])('holds exactly %d litres and the driver in its front', (litres) => {
    const drawing = layOut(sized(litres), report);
    if (!drawing) throw new Error('no drawing');
    const { box, driver } = drawing;
    expect(box.width * box.height * box.depth).toBeCloseTo(litres / 1000, 9);
    expect(Math.min(box.width, box.height)).toBeGreaterThan(driver.frame);
    expect(driver.middle - driver.frame / 2).toBeGreaterThan(0);
    expect(driver.middle + driver.frame / 2).toBeLessThan(box.height);
  });

  it('folds what is longer than the box is deep and nothing else', () => {
    const long = layOut(slot, report)?.port;
    expect(long?.folded).toBeGreaterThan(0.1);
    const ports = [{ length: 0.12, area: 0.007, pipe_resonance: 900 }];
    expect(layOut(slot, withFigures({ ports }))?.port?.folded).toBe(0);
  });

  it('keeps the driver clear of the port', () => {
    const drawing = layOut(slot, report);
    if (!drawing?.port) throw new Error('no port');
    const top = drawing.port.middle + drawing.port.height / 2;
    expect(drawing.driver.middle - drawing.driver.frame / 2).toBeGreaterThanOrEqual(top);
  });

  it('has no port in a sealed box and nothing without a volume', () => {
    expect(layOut(withFamily(slot, 'sealed'), sealedReport)?.port).toBeNull();
    expect(layOut(withValue(slot, 'enclosure.volume', null), report)).toBeNull();
  });
});
