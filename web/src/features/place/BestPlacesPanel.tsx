import { useState } from 'react';
import { runs } from '../../api/queries/jobs';
import { useBestPlaces, useStartBestPlaces, useStopBestPlaces } from '../../api/queries/place';
import { same } from '../../model/design';
import { inMetres, sizeOf } from '../../model/places';
import { inWords } from '../../model/preferences';
import type { PlaceSearch, RawArea, RawListeningPlace } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Message } from '../../ui/Message';
import { type PanelProps, PlaceValues, without } from './panel';

type Found = PlaceSearch['best']['found'][number];

/** Where the cabinets would play most evenly over all seats. */
export function BestPlacesPanel({ place, report, error, design, build, onEdit, onGhosts }: PanelProps) {
  const search = useBestPlaces(build);
  const start = useStartBestPlaces(build, design);
  const stop = useStopBestPlaces(build);
  const [wanted, setWanted] = useState<'1' | '2'>(place.cabinets?.length === 2 ? '2' : '1');
  const found = search.data;
  const running = runs(found?.job);
  const now = report?.spread;
  // What was found for other walls, seats or areas is not of this room.
  const stale = found && !same(apart(found.asked.place), apart(place));
  const use = ({ at }: Found) => {
    const stands = at.map(([x = 0, y = 0, up = 0], index) => {
      const { up: _, ...stand } = place.cabinets?.[index] ?? place.cabinets?.[0] ?? {};
      return { ...stand, across: inMetres(x), along: inMetres(y), ...(up > 0.005 && { up: inMetres(up) }) };
    });
    onEdit({ ...place, cabinets: [...stands, ...(place.cabinets ?? []).slice(at.length)] }, 'best places');
    onGhosts([]);
  };
  return (
    <div className="flex flex-col gap-2">
      <p>
        Every spot on a grid of 25 cm {place.areas?.length ? 'in the dashed areas' : 'on the floor'} is tried;
        the best has the least spread over all seats from 20 to 120 Hz. Now:{' '}
        <b>{now == null ? '…' : `${now.toFixed(1)} dB`}</b>.
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label="Cabinets to place"
          value={wanted}
          options={[
            ['1', 'one cabinet'],
            ['2', 'two cabinets'],
          ]}
          onChange={setWanted}
        />
        <Button
          look="strong"
          disabled={running || start.isPending}
          onClick={() => start.mutate(Number(wanted))}
        >
          Find the best places
        </Button>
        {running && found && (
          <>
            <progress
              aria-label="Places tried"
              className="h-2 w-28"
              max={found.job.total || 1}
              value={found.job.done}
            />
            <Button onClick={() => stop.mutate(found.job.id)}>Stop</Button>
          </>
        )}
      </div>
      <Areas place={place} error={error} onEdit={onEdit} />
      <Message error={start.error ?? search.error} />
      {found?.job.failure && <p role="alert">It failed: {found.job.failure}</p>}
      {stale && <p className="text-soft">Room, seats or areas have changed since; search again.</p>}
      {found && !stale && (
        <>
          <p aria-live="polite" className="text-soft">
            {found.best.judged} {found.asked.cabinets === 2 ? 'pairs of places' : 'places'} tried.
          </p>
          <ol aria-label="Best places" className="flex flex-col gap-1.5">
            {found.best.found.map((one, rank) => (
              <li
                key={one.at.join()}
                className="flex items-center gap-2 rounded-[3px] border border-line bg-card px-2 py-1"
                onPointerEnter={() => onGhosts(one.at)}
                onPointerLeave={() => onGhosts([])}
              >
                <span className="min-w-0 flex-1">
                  <b>
                    {rank + 1}. {one.spread.toFixed(1)} dB
                  </b>
                  {now != null && ` (${change(one.spread - now)} dB)`} at{' '}
                  {one.at
                    .map(([x = 0, y = 0]) => inWords(`${x.toFixed(2)} m, ${y.toFixed(2)} m`))
                    .join(' and ')}
                  <span className="block text-[0.929rem] text-soft">{one.why}</span>
                </span>
                <Button
                  aria-label={`Use place ${rank + 1}`}
                  onFocus={() => onGhosts(one.at)}
                  onBlur={() => onGhosts([])}
                  onClick={() => use(one)}
                >
                  Use
                </Button>
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}

const change = (by: number) => `${by > 0 ? '+' : ''}${by.toFixed(1)}`.replace('-', '−');

/** What a search depends on. */
function apart({ kind, width, length, height, absorption, walls, leak, seats, areas }: RawListeningPlace) {
  return { kind, width, length, height, absorption, walls, leak, seats, areas: areas ?? [] };
}

const SIDES = ['left', 'right', 'below', 'above', 'up'] as const;

/** Where a cabinet may stand: parts of the floor, or shelves. */
function Areas({ place, error, onEdit }: Pick<PanelProps, 'place' | 'error' | 'onEdit'>) {
  const areas = place.areas ?? [];
  const put = (next: RawArea[]) => {
    const { areas: _, ...rest } = place;
    onEdit(next.length ? { ...rest, areas: next } : rest, 'area');
  };
  const size = sizeOf(place);
  const whole = {
    left: '0 m',
    right: inMetres(size?.[0] ?? 1),
    below: inMetres((size?.[1] ?? 1) / 2),
    above: inMetres(size?.[1] ?? 1),
  };
  return (
    <section aria-label="Allowed areas" className="flex flex-col gap-1.5">
      {areas.map((area, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: areas have no other name
        <div key={at} className="rounded-[3px] border border-line bg-card px-2 py-1">
          <div className="flex items-center justify-between">
            <b>Area {at + 1}</b>
            <Button
              aria-label={`Remove area ${at + 1}`}
              onClick={() => put(areas.filter((_, other) => other !== at))}
            >
              Remove
            </Button>
          </div>
          <PlaceValues
            error={error}
            rows={SIDES.map((side) => ({
              path: `areas[${at}].${side}`,
              typed: area[side],
              optional: side === 'up',
              ...(side === 'up' && { follows: '0 m' }),
              onType: (typed) =>
                put(areas.map((one, other) => (other === at ? without({ ...one, [side]: typed }) : one))),
            }))}
          />
        </div>
      ))}
      {areas.length < MOST_AREAS && (
        <p>
          <Button onClick={() => put([...areas, whole])}>Allow an area</Button>{' '}
          <span className="text-soft">
            {areas.length ? 'Only the dashed areas count.' : 'Now the whole floor counts.'}
          </span>
        </p>
      )}
    </section>
  );
}

const MOST_AREAS = 8;
