import { inWords } from '../../model/preferences';
import type { RawListeningPlace } from '../../schema/types';
import { type PanelProps, PlaceValues, without } from './panel';

const NAMES = ['capacity', 'usable', 'efficiency', 'idle', 'solar'] as const;
const USUAL: Partial<Record<(typeof NAMES)[number], string>> = {
  usable: '80 %',
  efficiency: '75 %',
  idle: '10 W',
};

/** How long the battery lasts. */
export function BatteryPanel({ place, report, error, onEdit }: PanelProps) {
  const { energy } = report ?? {};
  const put = (battery: NonNullable<RawListeningPlace['battery']>) =>
    onEdit(battery.capacity ? { ...place, battery } : without({ ...place, battery: null }), 'battery');
  return (
    <div className="flex flex-col gap-2">
      {energy && (
        <p className="flex flex-wrap items-baseline gap-x-4">
          <Hours hours={energy.asked ? energy.asked[2] : undefined} what="at the level of the brief" />
          <Hours hours={energy.full[1]} what="with peaks at clipping" />
          {energy.solar != null && <Hours hours={energy.solar} what="a day from the sun" />}
        </p>
      )}
      {energy && <p>{inWords(energy.words)}</p>}
      {!energy && (
        <p>
          {place.battery
            ? 'Name the amplifier in the brief or the signal, and it is worked out how long the battery lasts.'
            : 'It runs from the mains. Type what a battery holds to see how long it lasts.'}
        </p>
      )}
      <PlaceValues
        error={error}
        otherwise="Volts times ampere hours: 12 V of 50 Ah are 600 Wh."
        rows={NAMES.map((name) => ({
          path: `battery.${name}`,
          typed: place.battery?.[name],
          ...(USUAL[name] && { follows: USUAL[name] }),
          onType: (typed) => put(without({ ...place.battery, [name]: typed })),
        }))}
      />
    </div>
  );
}

function Hours({ hours, what }: { hours: number | undefined; what: string }) {
  if (hours === undefined) return null;
  const [whole, minutes] = [Math.floor(hours), Math.round((hours % 1) * 60)];
  return (
    <span>
      <b className="font-mono text-[1.286rem]">
        {hours < 10 ? `${whole} h ${minutes} min` : `${hours.toFixed(0)} h`}
      </b>{' '}
      {what}
    </span>
  );
}
