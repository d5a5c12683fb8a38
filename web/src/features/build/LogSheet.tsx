import { useState } from 'react';
import { keepPhoto, photoAt } from '../../api/photos';
import { clockOf, dayOf, localMoment } from '../../model/moment';
import { fieldAt, readTyped } from '../../model/units';
import { archiveEntry, entriesOn, type KeptEntry, keepEntry, progressOn } from '../../model/workshop';
import type { RawEntry, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { chooseFile } from '../../ui/file';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';
import { Scroll } from '../../ui/Scroll';
import { Select } from '../../ui/Select';
import { TextInput } from '../../ui/TextInput';
import { money, type SheetProps } from './sheet';

const HOURS = fieldAt('entry.hours');
const COST = fieldAt('entry.cost');

/** What was done, what went wrong and how it was put right; with hours and money against the plan. */
export function LogSheet({ plan, bench, workbench, build }: SheetProps) {
  const entries = entriesOn(bench);
  const [wanted, setWanted] = useState('');
  const words = wanted.trim().toLowerCase();
  const titleOf = (id: string | null | undefined) =>
    plan.steps.find((step) => step.id === id)?.title ?? id ?? '';
  const found = entries.filter(({ entry }) =>
    [entry.text, entry.mistake, entry.cause, entry.fix, titleOf(entry.step)]
      .join(' ')
      .toLowerCase()
      .includes(words),
  );
  const sum = (of: (entry: RawEntry) => number) => entries.reduce((all, { entry }) => all + of(entry), 0);
  const hours = sum(({ hours }) => (readTyped(hours, 'time')?.si ?? 0) / 3600);
  const spent = sum(({ cost }) => Number(cost ?? 0));
  const mistakes = entries.filter(({ entry }) => entry.mistake).length;
  const done = (progressOn(bench).ticks ?? []).filter(({ failed }) => !failed).length;
  const add = () =>
    keepEntry(workbench, { id: crypto.randomUUID(), entry: { at: localMoment(new Date()), text: '' } });
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <Button look="strong" onClick={add}>
          New entry
        </Button>
        <input
          type="search"
          className="field w-56"
          aria-label="Search the log"
          placeholder="Search"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
        <p className="text-[0.929rem]">
          <b className="font-mono">{hours.toFixed(1)} h</b> of {plan.hours.toFixed(0)} h planned ·{' '}
          <b className="font-mono">{money(spent)}</b> spent of {money(plan.cost)} · {done} of{' '}
          {plan.steps.length} steps · {mistakes} {mistakes === 1 ? 'mistake' : 'mistakes'} put down
        </p>
      </div>
      <Scroll label="Log" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
        {!entries.length && (
          <p className="text-soft">
            Nothing yet. A log of mistake, cause and fix is worth more than the plan: the next box begins with
            it.
          </p>
        )}
        <ol className="flex flex-col gap-2">
          {found.map((one) => (
            <li key={one.id}>
              <Entry
                one={one}
                build={build}
                steps={plan.steps}
                onKeep={(entry) => keepEntry(workbench, { ...one, entry })}
                onArchive={() => archiveEntry(workbench, one)}
              />
            </li>
          ))}
        </ol>
      </Scroll>
    </>
  );
}

interface EntryProps {
  one: KeptEntry;
  build: string;
  steps: SheetProps['plan']['steps'];
  onKeep: (entry: RawEntry) => void;
  onArchive: () => void;
}

const ACCOUNTS = [
  ['mistake', 'Mistake'],
  ['cause', 'Cause'],
  ['fix', 'Fix'],
] as const;

function Entry({ one, build, steps, onKeep, onArchive }: EntryProps) {
  const [failure, setFailure] = useState<unknown>(null);
  const { entry } = one;
  const put = (change: Partial<Record<keyof RawEntry, unknown>>) => {
    const next = Object.entries({ ...entry, ...change }).filter(
      ([, value]) => value !== null && value !== '',
    );
    onKeep({ text: '', ...Object.fromEntries(next) } as RawEntry);
  };
  const when = `${dayOf(entry.at)}, ${clockOf(entry.at)}`;
  const number = (name: 'hours' | 'cost', typed: Typed | null) => put({ [name]: typed });
  const photos = entry.photos ?? [];
  const addPhoto = async () => {
    setFailure(null);
    const file = await chooseFile('image/jpeg,image/png,image/webp');
    if (!file) return;
    try {
      const hash = await keepPhoto(build, file);
      if (!photos.includes(hash)) put({ photos: [...photos, hash] });
    } catch (error) {
      setFailure(error);
    }
  };
  return (
    <article
      aria-label={`Entry of ${when}`}
      className="rounded-[3px] border border-rule-line bg-card px-3 py-2"
    >
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="font-semibold">{when}</h3>
        <Select
          label="Step"
          className="max-w-72"
          value={entry.step ?? ''}
          options={[['', 'no step'] as const, ...steps.map(({ id, title }) => [id, title] as const)]}
          onChange={(step) => put({ step: step || null })}
        />
        <div className="flex items-center gap-1.5">
          Hours
          <QuantityInput
            label="Hours"
            fields={[HOURS]}
            typed={entry.hours ?? null}
            optional
            className="w-20 font-mono"
            onType={(_, typed) => number('hours', typed)}
          />
        </div>
        <div className="flex items-center gap-1.5">
          Cost
          <QuantityInput
            label="Cost"
            fields={[COST]}
            typed={entry.cost ?? null}
            optional
            className="w-20 font-mono"
            onType={(_, typed) => number('cost', typed)}
          />
        </div>
        <Button className="ml-auto" disabled={photos.length >= 8} onClick={() => void addPhoto()}>
          Add a photo…
        </Button>
        <Button onClick={onArchive}>Archive</Button>
      </div>
      <div className="mt-1 grid grid-cols-1 gap-1.5 md:grid-cols-2">
        <div className="flex items-center gap-2 md:col-span-2">
          <span className="min-w-16 text-soft">What</span>
          <TextInput
            label="What was done"
            value={entry.text}
            longest={10_000}
            optional
            className="flex-1"
            onChange={(text) => put({ text })}
          />
        </div>
        {ACCOUNTS.map(([name, label]) => (
          <div key={name} className="flex items-center gap-2">
            <span className="min-w-16 text-soft">{label}</span>
            <TextInput
              label={label}
              value={entry[name] ?? ''}
              longest={2000}
              optional
              className="flex-1"
              onChange={(text) => put({ [name]: text })}
            />
          </div>
        ))}
      </div>
      <Message error={failure} />
      {photos.length > 0 && (
        <ul className="mt-1.5 flex flex-wrap gap-2">
          {photos.map((hash, at) => (
            <li key={hash} className="flex flex-col items-center gap-0.5">
              <a href={photoAt(hash)} target="_blank" rel="noreferrer">
                <img
                  src={photoAt(hash)}
                  alt={`${at + 1} of ${photos.length} of this entry`}
                  loading="lazy"
                  className="h-24 rounded-[3px] border border-line object-contain"
                />
              </a>
              <Button
                look="quiet"
                aria-label={`Remove photo ${at + 1}`}
                onClick={() => put({ photos: photos.filter((one) => one !== hash) })}
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
    </article>
  );
}
