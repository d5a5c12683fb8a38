import { RadioGroup } from 'radix-ui';
import { useState } from 'react';
import { useRecommendation, useStarts } from '../../api/queries/design';
import { useCompletion } from '../../api/queries/library';
import { withStart } from '../../model/design';
import { FAMILIES, type Family, familyEntry, holdsValuesFor, leaning } from '../../model/families';
import { inWords } from '../../model/preferences';
import { type Field, fieldAt, hertz } from '../../model/units';
import type { KindReport, RawAsk, RawBrief, RawDesign, StartReport, Typed } from '../../schema/types';
import { Silhouette } from '../../section/Silhouette';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { useHeld } from '../../ui/held';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';

interface Props {
  /** What the cabinet is for; its driver, drive and space are kept. */
  design: RawDesign;
  /** What it must reach. */
  brief: RawBrief | null;
  /** Whether it is on the bench already, or only a driver has been chosen. */
  begun: boolean;
  onClose: () => void;
  /** Takes the place of the design. */
  onHere: (design: RawDesign) => void;
  /** Becomes a variant of its own. */
  onNew: (design: RawDesign) => void;
}

/** Chooses a kind of cabinet and a starting point. */
export function CabinetDialog(props: Props) {
  return (
    <Dialog
      title="Kind of cabinet"
      about="Choose a kind on the left. Each starting point is a box worked out by one method; change it from there."
      open
      onClose={props.onClose}
      wide
    >
      <Chooser {...props} />
    </Dialog>
  );
}

function Chooser({ design, brief, begun, onHere, onNew }: Props) {
  const [chosen, setChosen] = useState<Family | null>(null);
  const [wishes, setWishes] = useState<Pick<RawAsk, 'volume' | 'lowest'>>({});
  const { driver, driver_array, signal, space, air } = design;
  const given = Object.entries({ driver_array, signal, space, air, brief, ...wishes }).filter(
    ([, value]) => value,
  );
  const ebp = useCompletion(driver).data?.ebp;
  const lean = ebp === undefined ? null : leaning(ebp);
  const drivers = Number(driver_array?.series ?? 1) * Number(driver_array?.parallel ?? 1);
  const found = useRecommendation(driver, brief, drivers).data;
  const ranked = found
    ? [...found.kinds.map((kind) => kind.family), ...BOXLESS]
    : FAMILIES.map(({ id }) => id);
  // Nothing moves under a hand that reaches for it.
  const [reaching, setReaching] = useState(false);
  const order = useHeld(
    ranked.filter((id, at) => ranked.indexOf(id) === at),
    reaching,
  );
  const family = chosen ?? (begun ? design.enclosure.family : (found?.family ?? lean?.family ?? 'sealed'));
  const starts = useStarts({ family, driver, ...Object.fromEntries(given) } as RawAsk);
  const wished = Object.values(wishes).some((typed) => typed);
  const wish = (name: 'volume' | 'lowest') => (_: Field, typed: Typed | null) =>
    setWishes((before) => ({ ...before, [name]: typed }));

  return (
    // As high as the window from the start: a dialog that grew would move its kinds under the hand.
    <div className="grid min-h-[calc(92vh-8rem)] grid-cols-1 gap-5 sm:grid-cols-[20rem_1fr]">
      <RadioGroup.Root
        aria-label="Kind of cabinet"
        value={family}
        onValueChange={(next) => setChosen(next as Family)}
        onPointerEnter={() => setReaching(true)}
        onPointerLeave={() => setReaching(false)}
        className="flex flex-col gap-px"
      >
        {order.map((id) => (
          <RadioGroup.Item
            key={id}
            value={id}
            aria-label={familyEntry(id).name}
            // As high as it will be once it says how it does: a row that grew would move under the hand.
            className="flex min-h-[2.6rem] items-center gap-2 rounded-[3px] border border-transparent px-2 py-[3px] text-left hover:bg-rule data-[state=checked]:border-oak data-[state=checked]:bg-card data-[state=checked]:font-semibold"
          >
            <Silhouette family={id} small /> <span className="flex-1">{familyEntry(id).name}</span>
            <HowItDoes kind={found?.kinds.find((kind) => kind.family === id)} />
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <div className="flex min-w-0 flex-col gap-3">
        {found && found.family === family && (
          <p className="rounded-[3px] border border-met px-2.5 py-1.5">{inWords(found.sentences[0] ?? '')}</p>
        )}
        <FamilyWords family={family} lean={lean?.words ?? null} />
        <div className="flex items-end gap-3">
          <Wish label="Largest size" field="enclosure.volume" typed={wishes.volume} onType={wish('volume')} />
          <Wish label="Lowest note" field="enclosure.tuning" typed={wishes.lowest} onType={wish('lowest')} />
          {begun && family !== design.enclosure.family && holdsValuesFor(design, family) && (
            <Button onClick={() => onHere({ ...design, enclosure: { ...design.enclosure, family } })}>
              Back to its own values
            </Button>
          )}
        </div>
        <Message error={starts.error} />
        <ul aria-label="Starting points" className="flex flex-col gap-2" aria-busy={starts.isFetching}>
          {starts.isPending && <li className="text-soft">Working out starting points …</li>}
          {[
            ...(wished
              ? []
              : toTheBrief(
                  found?.kinds.find((kind) => kind.family === family),
                  starts.data,
                )),
            ...(starts.data ?? []),
          ].map((start) => (
            <StartingPoint
              key={start.starting_point}
              start={start}
              begun={begun}
              onHere={(found) => onHere(withStart(design, found))}
              onNew={(found) => onNew({ ...withStart(design, found), name: nameOf(family, start) })}
            />
          ))}
        </ul>
      </div>
    </div>
  );
}

/** The cabinet that does most of what the brief asks, as one more starting point. */
function toTheBrief(kind: KindReport | undefined, starts: readonly StartReport[] = []): StartReport[] {
  if (!kind?.design) return [];
  const same = starts.find(({ reason }) => reason === kind.reason);
  const reason = same
    ? `Of these, the box "${same.name}" does most of what the brief asks; its words are below.`
    : kind.reason;
  return [{ starting_point: 'brief', name: 'To the brief', reason, design: kind.design }];
}

/** Kinds that have no box to rank by. */
const BOXLESS: Family[] = ['open_baffle', 'infinite_baffle'];

/** What a kind comes to here: how large, how low, and whether anything is short. */
function HowItDoes({ kind }: { kind: KindReport | undefined }) {
  if (!kind?.design) return null;
  const { outside, f3, buildable, short } = kind;
  const words = !buildable
    ? 'cannot be built'
    : short.length
      ? `short: ${short[0]?.name.split(',')[0]?.toLowerCase()}`
      : 'meets it';
  const size = outside == null ? '' : `${(outside * 1e3).toFixed(0)} l`;
  return (
    <span className="text-right font-normal text-[0.857rem] leading-tight">
      <span className="block font-mono">{inWords([size, hertz(f3)].filter(Boolean).join(' · '))}</span>
      <span className={buildable && !short.length ? 'text-met' : 'text-short'}>{words}</span>
    </span>
  );
}

function nameOf(family: Family, start: StartReport): string {
  return `${familyEntry(family).name}, ${start.name.charAt(0).toLowerCase()}${start.name.slice(1)}`;
}

function FamilyWords({ family, lean }: { family: Family; lean: string | null }) {
  const { name, good, bad } = familyEntry(family);
  return (
    <div>
      <h3 className="text-[1.214rem]">{name}</h3>
      <p>
        <b className="text-met">Good: </b>
        {good}
      </p>
      <p>
        <b className="text-short">Bad: </b>
        {bad}
      </p>
      {lean && <p className="mt-1 text-soft">{lean}</p>}
    </div>
  );
}

interface WishProps {
  label: string;
  field: string;
  typed: Typed | null | undefined;
  onType: (field: Field, typed: Typed | null) => void;
}

function Wish({ label, field, typed, onType }: WishProps) {
  return (
    <div className="w-48">
      <span aria-hidden="true" className="block text-soft">
        {label}, if you wish
      </span>
      <QuantityInput label={label} fields={[fieldAt(field)]} typed={typed ?? null} optional onType={onType} />
    </div>
  );
}

interface StartingPointProps {
  start: StartReport;
  begun: boolean;
  onHere: (design: RawDesign) => void;
  onNew: (design: RawDesign) => void;
}

function StartingPoint({ start: { name, reason, design }, begun, onHere, onNew }: StartingPointProps) {
  return (
    <li className={`rounded-[3px] border border-line p-2.5 ${design ? 'bg-card' : ''}`}>
      <div className="flex items-start gap-3">
        <div className="min-w-0 flex-1">
          <h4 className="font-semibold">{name}</h4>
          <p className={design ? '' : 'text-soft'}>
            {!design && <b>No start here. </b>}
            {inWords(reason)}
          </p>
        </div>
        {design && (
          <div className="flex shrink-0 flex-col gap-1.5">
            {begun && (
              <Button aria-label={`Replace this design: ${name}`} onClick={() => onHere(design)}>
                Replace this design
              </Button>
            )}
            <Button
              look="strong"
              aria-label={begun ? `New variant: ${name}` : `Start: ${name}`}
              onClick={() => onNew(design)}
            >
              <Icon name="plus" /> {begun ? 'New variant' : 'Start'}
            </Button>
          </div>
        )}
      </div>
    </li>
  );
}
