// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import type { DriverMatchPoint } from '../../schema/types';
import type { Chosen } from './chosen';
import { Tradeoff } from './Tradeoff';

afterEach(cleanup);

const point = (name: string, volume: number, f3: number, loudness: number, front: boolean, score = 90) =>
  ({ driver: name, name, family: 'ported', volume, f3, loudness, front, score }) as DriverMatchPoint;

const POINTS = [
  point('small', 0.02, 48, 98, true),
  point('worse', 0.05, 52, 96, false),
  point('middle', 0.06, 34, 104, true, 100),
  point('large', 0.2, 24, 108, true),
];

function Held({ points = POINTS }: { points?: DriverMatchPoint[] }) {
  const [chosen, setChosen] = useState<Chosen | null>(null);
  return <Tradeoff points={points} chosen={chosen} onChoose={setChosen} />;
}

const plane = () => screen.getByRole('slider');
const says = () => plane().getAttribute('aria-valuetext');

describe('what each cabinet gives for its size', () => {
  it('is walked through by the keys, along those that none beats, and stops at both ends', () => {
    render(<Held />);
    expect([says(), plane().getAttribute('aria-valuemax')]).toEqual(['none chosen', '3']);
    const walk = (key: string) => {
      fireEvent.keyDown(plane(), { key });
      return says()?.split(',')[0];
    };
    expect(walk('ArrowRight')).toBe('small');
    expect(walk('ArrowRight')).toBe('middle');
    expect(walk('ArrowUp')).toBe('large');
    expect(walk('ArrowRight')).toBe('large');
    expect(walk('ArrowLeft')).toBe('middle');
    expect(says()).toBe('middle, ported: 60 l, 34.0 Hz, 104.0 dB');
    expect(plane().getAttribute('aria-valuenow')).toBe('2');
    fireEvent.keyDown(plane(), { key: 'Tab' });
    expect(says()).toContain('middle');
  });

  it('takes a press on a point, also one that others beat', () => {
    const { container } = render(<Held />);
    const circle = [...container.querySelectorAll('circle')].find((one) =>
      one.querySelector('title')?.textContent?.startsWith('worse'),
    );
    fireEvent.click(circle as Element);
    expect(says()).toContain('worse, ported: 50 l');
    // It is none of the best ones, so it has no place among them.
    expect(plane().getAttribute('aria-valuenow')).toBe('0');
  });

  it('puts the larger farther right and the lower note farther up or down by its own axis', () => {
    const { container } = render(<Held />);
    const at = (name: string) => {
      const circle = [...container.querySelectorAll('circle')].find((one) =>
        one.querySelector('title')?.textContent?.startsWith(name),
      );
      return [Number(circle?.getAttribute('cx')), Number(circle?.getAttribute('cy'))] as const;
    };
    expect(at('large')[0]).toBeGreaterThan(at('middle')[0]);
    expect(at('middle')[0]).toBeGreaterThan(at('small')[0]);
    const before = at('large');
    fireEvent.change(screen.getByRole('combobox', { name: 'What is drawn' }), {
      target: { value: 'f3 loudness' },
    });
    expect(at('large')).not.toEqual(before);
    // Louder is higher up.
    expect(at('large')[1]).toBeLessThan(at('small')[1]);
    expect(screen.getByText('Lowest note, Hz')).toBeTruthy();
  });

  it('is not there while nothing was found', () => {
    const { container } = render(<Held points={[]} />);
    expect(container.innerHTML).toBe('');
  });
});
