import { whereIs, withItem, withoutItem } from '../../model/places';
import { inWords } from '../../model/preferences';
import { Button } from '../../ui/Button';
import { Table } from '../../ui/Table';
import { TextInput } from '../../ui/TextInput';
import { type PanelProps, PlaceValues, without } from './panel';

/** What each seat hears, and the cabinet or seat that is chosen. */
export function SeatsPanel(props: PanelProps) {
  const { place, report, brief, onBrief } = props;
  const seats = report?.seats ?? [];
  const said = seats.filter(({ dip, near }) => dip || near);
  return (
    <div className="flex flex-col gap-2">
      <ChosenItem {...props} />
      {seats.length > 0 && (
        <Table
          caption="At this drive, over the band of the brief"
          rows={seats}
          keyOf={(_, at) => at}
          columns={[
            { name: 'Seat', names: true, cell: ({ name }) => name },
            {
              name: 'Level',
              kind: 'figure',
              cell: ({ level }) => (level == null ? '' : `${level.toFixed(1)} dB`),
            },
            {
              name: 'Spread',
              kind: 'figure',
              cell: ({ spread }) => (spread == null ? '' : `±${spread.toFixed(1)} dB`),
            },
          ]}
        />
      )}
      {report && (report.spread != null || report.between_seats != null) && (
        <p>
          {report.spread != null && (
            <>
              The room spreads by <b>{report.spread.toFixed(1)} dB</b> over all seats from 20 to 120 Hz.{' '}
            </>
          )}
          {report.between_seats != null && (
            <>
              The loudest and the softest seat differ by <b>{report.between_seats.toFixed(1)} dB</b> on
              average.
            </>
          )}
        </p>
      )}
      {said.map(({ name, dip, near }) => (
        <p key={name} className="rounded-[3px] border border-line bg-card px-2 py-1">
          <b>{name}:</b>{' '}
          {near && 'nearer than 0.3 m to a cabinet, where a sum of standing waves says nothing. '}
          {dip}
        </p>
      ))}
      {report?.note && <p>{report.note}</p>}
      {report?.field && <p>{inWords(report.field.words)}</p>}
      {place.seats?.length === 0 && <p>Nobody listens yet: add a seat.</p>}
      {brief && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={brief.at_seats ?? false}
            onChange={(event) => {
              const { at_seats: _, ...rest } = brief;
              onBrief(event.target.checked ? { ...rest, at_seats: true } : rest);
            }}
          />
          The loudness of the brief is meant at these seats
        </label>
      )}
    </div>
  );
}

/** Where the chosen one stands, and how it plays. */
function ChosenItem({ place, report, error, chosen, onChoose, onEdit }: PanelProps) {
  const { which, at } = chosen;
  const item = place[which]?.[at];
  if (!item) return null;
  const put = (change: object, label: string) =>
    onEdit(withItem(place, which, at, without({ ...item, ...change })), label);
  const row = (name: string) => ({
    path: `${which}[${at}].${name}`,
    typed: (item as Record<string, unknown>)[name] as string | undefined,
    optional: name !== 'across' && name !== 'along',
    onType: (typed: unknown) => put({ [name]: typed }, which === 'seats' ? 'seat' : 'cabinet'),
  });
  const remove = () => {
    onEdit(withoutItem(place, which, at), which === 'seats' ? 'remove the seat' : 'remove the cabinet');
    onChoose({ which, at: Math.max(0, at - 1) });
  };
  const [, , up] = whereIs(item);
  const stand = which === 'cabinets' ? place.cabinets?.[at] : undefined;
  const told = stand && report?.cabinets[at];
  return (
    <section aria-label="What is chosen" className="flex flex-col gap-1">
      <div className="flex items-center gap-1.5">
        {which === 'seats' ? (
          <TextInput
            label="Name of the seat"
            value={place.seats?.[at]?.name || `Seat ${at + 1}`}
            longest={120}
            className="min-w-0 flex-1 font-semibold"
            onChange={(name) => put({ name }, 'name of the seat')}
          />
        ) : (
          <h2 className="flex-1 text-[1.071rem]">Cabinet {at + 1}</h2>
        )}
        {stand && (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={stand.inverted ?? false}
              onChange={(event) => put({ inverted: event.target.checked || null }, 'polarity')}
            />
            polarity reversed
          </label>
        )}
        <Button onClick={remove}>Remove</Button>
      </div>
      <PlaceValues
        error={error}
        otherwise="Drag it on the plan, press the arrow keys there, or type a value."
        rows={[
          row('across'),
          row('along'),
          { ...row('up'), ...(up === null && { follows: which === 'seats' ? '1.2 m' : '0 m' }) },
          ...(stand ? [row('turned'), row('gain'), row('delay')] : []),
        ]}
      />
      {told?.walls && <p>{told.walls}</p>}
    </section>
  );
}
