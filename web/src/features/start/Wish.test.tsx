// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { RawBrief } from '../../schema/types';
import { Wish } from './Wish';

const FILM: RawBrief = {
  template: 'home_film',
  space: 'quarter',
  lowest: '20 Hz',
  loudness: '105 dB',
  width: '55 cm',
  height: '70 cm',
  depth: '60 cm',
  amplifier_power: '500 W',
  amplifier_load: '4 ohm',
};
vi.mock('../../api/queries/builds', () => ({
  useBriefs: () => ({
    data: [{ id: 'home_film', name: 'Home, film', about: 'Effects down to 20 Hz.', brief: FILM }],
  }),
}));

afterEach(cleanup);

function open(brief: RawBrief | null) {
  const onChange = vi.fn();
  render(<Wish brief={brief} onChange={onChange} />);
  return onChange;
}

const answer = (name: RegExp) => screen.getByRole('button', { name });
const pressed = (name: RegExp) => answer(name).getAttribute('aria-pressed');

describe('the wish in five questions', () => {
  it('begins with what it is for, which answers the others', () => {
    const onChange = open(null);
    expect(screen.queryByRole('group', { name: 'How low?' })).toBeNull();
    fireEvent.click(answer(/^Home, film/));
    expect(onChange).toHaveBeenCalledWith(FILM);
  });

  it('shows which answers stand, however they were written', () => {
    open({ ...FILM, lowest: '30.87 Hz' });
    for (const title of ['How low?', 'How loud?', 'Where, and how large?', 'What drives it?']) {
      expect(screen.getByRole('group', { name: title })).toBeTruthy();
    }
    expect(pressed(/^B0/)).toBe('true');
    expect(pressed(/^E1/)).toBe('false');
    expect(pressed(/^105 dB/)).toBe('true');
    expect(pressed(/^armchair/)).toBe('true');
    expect(pressed(/^bedside table/)).toBe('false');
    expect(pressed(/^at a wall/)).toBe('true');
  });

  it('changes one thing at a time, and takes back what is not known', () => {
    const onChange = open(FILM);
    fireEvent.click(answer(/^E1/));
    expect(onChange).toHaveBeenLastCalledWith({ ...FILM, lowest: 'E1' });
    fireEvent.click(answer(/^bedside table/));
    expect(onChange).toHaveBeenLastCalledWith({ ...FILM, width: '36 cm', height: '50 cm', depth: '42 cm' });
    fireEvent.click(answer(/^in a corner/));
    expect(onChange).toHaveBeenLastCalledWith({ ...FILM, space: 'eighth' });
    fireEvent.click(answer(/^100 W/));
    expect(onChange).toHaveBeenLastCalledWith({ ...FILM, amplifier_power: '100 W' });
    fireEvent.click(answer(/^not known yet/));
    const { amplifier_power: _, amplifier_load: __, ...open_ } = FILM;
    expect(onChange).toHaveBeenLastCalledWith(open_);
    const lowest = screen.getByRole('textbox', { name: 'Lowest note' });
    fireEvent.change(lowest, { target: { value: '25' } });
    fireEvent.blur(lowest);
    expect(onChange).toHaveBeenLastCalledWith({ ...FILM, lowest: '25 Hz' });
  });
});
