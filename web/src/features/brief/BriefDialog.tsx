import { type ReactNode, useState } from 'react';
import { Refusal } from '../../api/client';
import { useBriefs, useCheckedBrief } from '../../api/queries/builds';
import { same } from '../../model/design';
import { FAMILIES } from '../../model/families';
import { type Field, fieldAt } from '../../model/units';
import type { RawBrief, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { type HelpProps, HelpText } from '../../ui/HelpText';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';

interface Props {
  brief: RawBrief | null;
  onKeep: (brief: RawBrief) => void;
  /** Saves the brief, and then searches the library for it. */
  onSearch?: (brief: RawBrief) => void;
  /** Shows the briefs that were saved before. */
  onHistory?: () => void;
  onClose: () => void;
}

const SPACES = [
  ['', 'not set'],
  ['full', 'free on all sides'],
  ['half', 'on the floor'],
  ['quarter', 'on the floor, at a wall'],
  ['eighth', 'in a corner, in a car'],
] as const;

const PROGRAMMES = [
  ['', 'not set'],
  ['music', 'music, 10 dB crest'],
  ['film', 'film, 12 dB crest'],
  ['sine', 'sine'],
] as const;

const AIR = [
  ['', 'not asked'],
  ['silent', 'silent, 10 m/s'],
  ['straight', 'straight edges, 17 m/s'],
  ['flared', 'generous flares, 34 m/s'],
] as const;

type Quantity =
  | 'lowest'
  | 'crossover'
  | 'loudness'
  | 'loudest'
  | 'distance'
  | 'width'
  | 'height'
  | 'depth'
  | 'volume'
  | 'weight'
  | 'top_depth'
  | 'head_width'
  | 'cabinets'
  | 'budget'
  | 'amplifier_power'
  | 'amplifier_load';

/** What the build must reach. What is left open is not judged. */
export function BriefDialog({ brief, onKeep, onSearch, onHistory, onClose }: Props) {
  const templates = useBriefs();
  const { mutate: check, isPending: busy, error } = useCheckedBrief();
  const keep = (then: (brief: RawBrief) => void) => check(draft, { onSuccess: () => then(draft) });
  const [draft, setDraft] = useState<RawBrief>(brief ?? {});
  const refusal = error instanceof Refusal ? error : null;
  const set = (change: Partial<RawBrief>) => {
    const next = Object.entries({ ...draft, ...change }).filter(
      ([, value]) => value !== null && value !== '' && !(Array.isArray(value) && value.length === 0),
    );
    setDraft(Object.fromEntries(next) as RawBrief);
  };
  const quantity = (name: Quantity, explain: (field: Field) => HelpProps) => {
    const field = fieldAt(`brief.${name}`);
    return (
      <div key={name} className="grid grid-cols-[6.2rem_1fr] items-center gap-2" {...explain(field)}>
        <span aria-hidden="true">{field.symbol}</span>
        <QuantityInput
          label={field.symbol}
          fields={[field]}
          typed={(draft[name] as Typed | undefined) ?? null}
          error={refusal?.errorOf(`brief.${name}`)}
          optional
          onType={(_, typed) => set({ [name]: typed } as Partial<RawBrief>)}
        />
      </div>
    );
  };
  const families = draft.families ?? [];
  return (
    <Dialog
      title="The brief"
      about="What this build must reach. What is left open is not judged."
      open
      onClose={onClose}
      changed={!same(draft, brief ?? {})}
      wide
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          keep(onKeep);
        }}
      >
        <fieldset>
          <legend className="mb-1 text-soft">Begin with</legend>
          <div className="grid grid-cols-1 gap-2 sm:grid-cols-3">
            {templates.data?.map((template) => (
              <button
                key={template.id}
                type="button"
                aria-pressed={draft.template === template.id}
                className="rounded-[3px] border border-line bg-card px-3 py-1.5 text-left hover:border-oak aria-pressed:border-oak aria-pressed:bg-rule"
                onClick={() => setDraft(template.brief)}
              >
                <b>{template.name}</b>
                <span className="block text-[0.929rem] text-soft leading-tight">{template.about}</span>
              </button>
            ))}
          </div>
        </fieldset>
        <HelpText otherwise="Go into a field to read what it means. Frequencies may be notes: E1, Bb0.">
          {(explain) => (
            <div className="grid grid-cols-1 gap-x-6 gap-y-2 sm:grid-cols-3">
              <Group title="Sound">
                {(['lowest', 'crossover', 'loudness', 'distance', 'loudest'] as const).map((name) =>
                  quantity(name, explain),
                )}
              </Group>
              <Group title="Size, outside">
                {(['width', 'height', 'depth', 'top_depth', 'volume', 'weight', 'head_width'] as const).map(
                  (name) => quantity(name, explain),
                )}
              </Group>
              <Group title="Amplifier and money">
                {(['amplifier_power', 'amplifier_load', 'budget', 'cabinets'] as const).map((name) =>
                  quantity(name, explain),
                )}
              </Group>
              <Group title="Where it stands">
                <Select
                  label="Where it stands"
                  value={draft.space ?? ''}
                  options={SPACES}
                  onChange={(space) => set({ space: space || null })}
                />
              </Group>
              <Group title="What is played">
                <Select
                  label="What is played"
                  value={draft.programme ?? ''}
                  options={PROGRAMMES}
                  onChange={(programme) => set({ programme: programme || null })}
                />
              </Group>
              <Group title="Air in ports">
                <Select
                  label="Air in ports"
                  value={draft.air_noise ?? ''}
                  options={AIR}
                  onChange={(air) => set({ air_noise: air || null })}
                />
              </Group>
            </div>
          )}
        </HelpText>
        <fieldset>
          <legend className="text-soft">Kinds of cabinet that are allowed; all where none is marked</legend>
          <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-4">
            {FAMILIES.map((family) => (
              <label key={family.id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={families.includes(family.id)}
                  onChange={(event) =>
                    set({
                      families: event.target.checked
                        ? [...families, family.id]
                        : families.filter((other) => other !== family.id),
                    })
                  }
                />
                {family.name}
              </label>
            ))}
          </div>
        </fieldset>
        <Message error={error} />
        <div className="flex flex-wrap justify-end gap-2">
          {brief && onHistory && (
            <Button className="mr-auto" onClick={onHistory}>
              Earlier briefs …
            </Button>
          )}
          <Button onClick={onClose}>Back</Button>
          <Button look={draft.lowest && onSearch ? 'plain' : 'strong'} type="submit" disabled={busy}>
            Save the brief
          </Button>
          {draft.lowest && onSearch && (
            <Button look="strong" disabled={busy} onClick={() => keep(onSearch)}>
              Save and find drivers
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="mb-1 font-semibold">{title}</legend>
      {children}
    </fieldset>
  );
}
