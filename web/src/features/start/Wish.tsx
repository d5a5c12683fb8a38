import { type ReactNode, useState } from 'react';
import { useBriefs } from '../../api/queries/builds';
import { inWords } from '../../model/preferences';
import { fieldAt, readTyped } from '../../model/units';
import type { RawBrief, Typed } from '../../schema/types';
import { SpacePicture } from '../../section/SpacePicture';
import { Button } from '../../ui/Button';
import { QuantityInput } from '../../ui/QuantityInput';
import { BriefDialog } from '../brief/BriefDialog';
import { LoudPicture, NotePicture, SizePicture, TemplatePicture } from './pictures';

interface Props {
  brief: RawBrief | null;
  onChange: (brief: RawBrief) => void;
}

const NOTES: [string, number, string][] = [
  ['20 Hz', 20, 'film effects, felt'],
  ['B0', 30.9, 'five-string bass, synths'],
  ['E1', 41.2, 'four-string bass, kick drum'],
  ['50 Hz', 50, 'vocals, small rooms'],
];

const LOUD: [string, number, string][] = [
  ['90 dB', 90, 'talk goes on'],
  ['100 dB', 100, 'a party'],
  ['105 dB', 105, 'peaks of a cinema'],
  ['115 dB', 115, 'a stage'],
];

const SIZES: [string, [string, string, string], [number, number, number]][] = [
  ['shoebox and a half', ['25 cm', '30 cm', '35 cm'], [0.25, 0.3, 0.35]],
  ['bedside table', ['36 cm', '50 cm', '42 cm'], [0.36, 0.5, 0.42]],
  ['armchair', ['55 cm', '70 cm', '60 cm'], [0.55, 0.7, 0.6]],
  ['washing machine', ['60 cm', '85 cm', '60 cm'], [0.6, 0.85, 0.6]],
];

const STANDS: [NonNullable<RawBrief['space']>, string][] = [
  ['full', 'free'],
  ['half', 'on the ground'],
  ['quarter', 'at a wall'],
  ['eighth', 'in a corner'],
];

const POWERS = ['50 W', '100 W', '200 W', '500 W'];

/** What the box must reach, in five questions; a template answers them all. */
export function Wish({ brief, onChange }: Props) {
  const templates = useBriefs();
  const [all, setAll] = useState(false);
  const set = (change: Partial<RawBrief>) => {
    const next = Object.entries({ ...brief, ...change }).filter(
      ([, value]) => value !== null && value !== '',
    );
    onChange(Object.fromEntries(next) as RawBrief);
  };
  const si = (name: 'lowest' | 'loudness' | 'amplifier_power') => {
    const typed = brief?.[name];
    return typed ? readTyped(typed, fieldAt(`brief.${name}`).dimension)?.si : undefined;
  };
  const quantity = (
    name:
      | 'lowest'
      | 'loudness'
      | 'distance'
      | 'width'
      | 'height'
      | 'depth'
      | 'amplifier_power'
      | 'amplifier_load'
      | 'budget',
  ) => {
    const field = fieldAt(`brief.${name}`);
    return (
      <span key={name} className="flex items-center gap-1.5 text-[0.929rem] text-soft">
        <span aria-hidden="true">{field.symbol}</span>
        <QuantityInput
          label={field.symbol}
          fields={[field]}
          typed={(brief?.[name] as Typed | undefined) ?? null}
          optional
          className="w-[5.6rem]"
          onType={(_, typed) => set({ [name]: typed } as Partial<RawBrief>)}
        />
      </span>
    );
  };
  const sized = (sides: readonly string[]) =>
    brief?.width === sides[0] && brief?.height === sides[1] && brief?.depth === sides[2];
  return (
    <div className="flex flex-col gap-4">
      <Question title="What is it for?">
        <Answers>
          {templates.data?.map(({ id, name, about, brief: begin }) => (
            <Answer key={id} chosen={brief?.template === id} title={about} onChoose={() => onChange(begin)}>
              <TemplatePicture id={id} />
              {name}
            </Answer>
          ))}
        </Answers>
      </Question>
      {brief && (
        <>
          <Question title="How low?" beside={quantity('lowest')}>
            <Answers>
              {NOTES.map(([typed, hertz, about]) => (
                <Answer
                  key={typed}
                  chosen={Math.abs((si('lowest') ?? 0) / hertz - 1) < 0.01}
                  onChoose={() => set({ lowest: typed })}
                >
                  <NotePicture hertz={hertz} />
                  <span>
                    <b>{typed}</b> <span className="block text-soft">{about}</span>
                  </span>
                </Answer>
              ))}
            </Answers>
          </Question>
          <Question title="How loud?" beside={[quantity('loudness'), quantity('distance')]}>
            <Answers>
              {LOUD.map(([typed, decibels, about]) => (
                <Answer
                  key={typed}
                  chosen={Math.abs((si('loudness') ?? 0) - decibels) < 0.5}
                  onChoose={() => set({ loudness: typed })}
                >
                  <LoudPicture decibels={decibels} />
                  <span>
                    <b>{typed}</b> <span className="block text-soft">{about}</span>
                  </span>
                </Answer>
              ))}
            </Answers>
          </Question>
          <Question
            title="Where, and how large?"
            beside={[quantity('width'), quantity('height'), quantity('depth')]}
          >
            <Answers>
              {STANDS.map(([space, name]) => (
                <Answer key={space} chosen={brief.space === space} onChoose={() => set({ space })}>
                  <SpacePicture space={space} />
                  {name}
                </Answer>
              ))}
              {SIZES.map(([name, [width, height, depth], sides]) => (
                <Answer
                  key={name}
                  chosen={sized([width, height, depth])}
                  title={inWords(`${width} × ${height} × ${depth}`)}
                  onChoose={() => set({ width, height, depth, volume: null, top_depth: null })}
                >
                  <SizePicture sides={sides} />
                  {name}
                </Answer>
              ))}
            </Answers>
          </Question>
          <Question
            title="What drives it?"
            beside={[quantity('amplifier_power'), quantity('amplifier_load'), quantity('budget')]}
          >
            <Answers small>
              {POWERS.map((typed) => (
                <Answer
                  key={typed}
                  chosen={brief.amplifier_power === typed}
                  onChoose={() =>
                    set({ amplifier_power: typed, amplifier_load: brief.amplifier_load ?? '4 ohm' })
                  }
                >
                  {typed}
                </Answer>
              ))}
              <Answer
                chosen={!brief.amplifier_power}
                onChoose={() => set({ amplifier_power: null, amplifier_load: null })}
              >
                not known yet
              </Answer>
            </Answers>
          </Question>
          <Button className="self-start" onClick={() => setAll(true)}>
            Everything a brief can ask …
          </Button>
        </>
      )}
      {all && (
        <BriefDialog
          brief={brief}
          onKeep={(next) => {
            onChange(next);
            setAll(false);
          }}
          onClose={() => setAll(false)}
        />
      )}
    </div>
  );
}

function Question({ title, beside, children }: { title: string; beside?: ReactNode; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="sr-only">{title}</legend>
      <div className="mb-1.5 flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="flex-1 whitespace-nowrap font-head font-semibold text-[1.071rem]" aria-hidden="true">
          {title}
        </span>
        {beside}
      </div>
      {children}
    </fieldset>
  );
}

function Answers({ small = false, children }: { small?: boolean; children: ReactNode }) {
  const columns = small ? 'minmax(6.5rem,1fr)' : 'minmax(9.5rem,1fr)';
  return (
    <div className="grid gap-1.5" style={{ gridTemplateColumns: `repeat(auto-fill, ${columns})` }}>
      {children}
    </div>
  );
}

interface AnswerProps {
  chosen: boolean;
  title?: string;
  onChoose: () => void;
  children: ReactNode;
}

function Answer({ chosen, title, onChoose, children }: AnswerProps) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      title={title}
      className="flex min-h-10 items-center gap-2 rounded-[3px] border border-line bg-card px-2 py-1 text-left text-[0.929rem] leading-tight hover:border-oak aria-pressed:border-oak aria-pressed:bg-rule"
      onClick={onChoose}
    >
      {children}
    </button>
  );
}
