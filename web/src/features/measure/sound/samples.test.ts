import { describe, expect, it } from 'vitest';
import { averaged, covered, cut, decibels, judged, peakOf, toneIn, wavOf } from './samples';

const block = (frame: number, ...channels: number[][]) => ({
  frame,
  channels: channels.map((samples) => Float32Array.from(samples)),
});

describe('samples', () => {
  it('are cut out of blocks by their frames, and what is lost stays silent and is counted', () => {
    const blocks = [block(100, [1, 2, 3, 4]), block(104, [5, 6]), block(110, [7, 8])];
    expect([...(cut(blocks, 102, 5)[0] ?? [])]).toEqual([3, 4, 5, 6, 0]);
    expect([...(cut(blocks, 98, 4)[0] ?? [])]).toEqual([0, 0, 1, 2]);
    expect(covered(blocks, 102, 4)).toBe(4);
    expect(covered(blocks, 102, 9)).toBe(5);
    const both = cut([block(0, [1, 2], [3, 4])], 1, 1);
    expect(both.map((channel) => [...channel])).toEqual([[2], [4]]);
    expect([...(cut([], 0, 2)[0] ?? [])]).toEqual([0, 0]);
  });

  it('of several recordings are averaged channel by channel', () => {
    const one = [Float32Array.of(1, 3), Float32Array.of(10, 10)];
    const two = [Float32Array.of(3, 5), Float32Array.of(20, 0)];
    expect(averaged([one, two]).map((channel) => [...channel])).toEqual([
      [2, 4],
      [15, 5],
    ]);
  });

  it('have a peak, and a tone whose amplitude is found', () => {
    const rate = 48_000;
    const samples = Float32Array.from(
      { length: rate / 2 },
      (_, k) => 0.1 * Math.sin((2 * Math.PI * 80 * k) / rate),
    );
    expect(peakOf([samples, Float32Array.of(-0.4)])).toBeCloseTo(0.4, 6);
    expect(toneIn(samples, 80, rate)).toBeCloseTo(0.1, 4);
    expect(toneIn(samples, 200, rate)).toBeLessThan(1e-3);
    expect(decibels(0.1)).toBeCloseTo(-20, 6);
  });

  it('tell by two tones whether anything regulates the level', () => {
    expect(judged(0.01, 0.04, 1e-4, 12)).toBe('true');
    expect(judged(0.02, 0.04, 1e-4, 12)).toBe('levelled');
    expect(judged(0.01, 0.04, 0.02, 12)).toBe('unheard');
    expect(judged(0, 0, 1e-6, 12)).toBe('unheard');
  });

  it('become a WAV file of floating numbers, channels side by side', async () => {
    const file = wavOf([Float32Array.of(0.5, -1), Float32Array.of(0.25, 0)], 48_000);
    const view = new DataView(await file.arrayBuffer());
    const text = (at: number) => String.fromCharCode(...[0, 1, 2, 3].map((k) => view.getUint8(at + k)));
    expect([text(0), text(8), text(12), text(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data']);
    expect([view.getUint16(20, true), view.getUint16(22, true), view.getUint32(24, true)]).toEqual([
      3, 2, 48_000,
    ]);
    expect(view.getUint32(40, true)).toBe(16);
    expect([44, 48, 52, 56].map((at) => view.getFloat32(at, true))).toEqual([0.5, 0.25, -1, 0]);
  });
});
