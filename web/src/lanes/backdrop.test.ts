// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Backdrop } from './backdrop';

describe('what stands still', () => {
  const canvas = document.createElement('canvas');
  const drawImage = vi.fn();
  const onto = { canvas, drawImage } as unknown as CanvasRenderingContext2D;
  const paint = vi.fn();

  beforeEach(() => {
    // There is nothing to paint on here; that it is painted is what matters.
    vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue({} as never);
    Object.assign(canvas, { width: 300, height: 100 });
    paint.mockClear();
    drawImage.mockClear();
  });
  afterEach(() => void vi.restoreAllMocks());

  it('is painted once and laid down each time', () => {
    const backdrop = new Backdrop();
    const values = [1, 2, 3];
    for (let time = 0; time < 5; time += 1) backdrop.lay(onto, ['light', 45, values], paint);
    expect(paint).toHaveBeenCalledTimes(1);
    expect(drawImage).toHaveBeenCalledTimes(5);
  });

  it('is painted anew with other values, another theme, fewer lines or another size', () => {
    const backdrop = new Backdrop();
    const values = [1, 2, 3];
    backdrop.lay(onto, ['light', values, values], paint);
    backdrop.lay(onto, ['light', values, [1, 2, 3]], paint);
    backdrop.lay(onto, ['dark', values, [1, 2, 3]], paint);
    backdrop.lay(onto, ['dark', values], paint);
    canvas.width = 400;
    backdrop.lay(onto, ['dark', values], paint);
    expect(paint).toHaveBeenCalledTimes(5);
  });

  it('waits for room', () => {
    canvas.width = 0;
    new Backdrop().lay(onto, [], paint);
    expect(paint).not.toHaveBeenCalled();
    expect(drawImage).not.toHaveBeenCalled();
  });
});
