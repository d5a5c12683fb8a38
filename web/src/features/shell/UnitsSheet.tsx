import { CHOICES, preferences } from '../../model/preferences';
import { fieldAt, shown } from '../../model/units';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { usePreferences } from '../../ui/observed';

/** In which units a person reads. */
export function UnitsSheet({ onClose }: { onClose: () => void }) {
  const { units, fields, notes } = usePreferences();
  const single = Object.entries(fields);
  function choose(dimension: string, unit: string) {
    const { [dimension]: _, ...others } = units;
    preferences.set({ units: unit ? { ...others, [dimension]: unit } : others });
  }
  return (
    <Dialog
      title="Units"
      about="How values are shown to you. Whatever is chosen, any unit can be typed, and files keep what was typed."
      open
      onClose={onClose}
    >
      <div className="flex flex-col gap-2">
        {CHOICES.map(({ dimension, name, units: symbols }) => (
          <label key={dimension} className="grid grid-cols-[8rem_1fr] items-center gap-2">
            {name}
            <select
              className="field"
              value={units[dimension] ?? ''}
              onChange={(event) => choose(dimension, event.target.value)}
            >
              <option value="">as typed</option>
              {symbols.map((symbol) => (
                <option key={symbol} value={symbol}>
                  {symbol === 'in'
                    ? 'in, to the nearest 32nd'
                    : symbol === 'cuft'
                      ? 'cubic feet'
                      : shown(symbol)}
                </option>
              ))}
            </select>
          </label>
        ))}
        <label className="grid grid-cols-[8rem_1fr] items-center gap-2">
          Frequencies
          <span className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={notes}
              onChange={(event) => preferences.set({ notes: event.target.checked })}
            />
            with the nearest note
          </span>
        </label>
        {single.length > 0 && (
          <div className="mt-2 flex items-center justify-between gap-3 border-line border-t pt-3">
            <p>
              Chosen by typing:{' '}
              {single.map(([path, unit]) => `${fieldAt(path).symbol} in ${shown(unit)}`).join(', ')}
            </p>
            <Button onClick={() => preferences.set({ fields: {} })}>Forget these</Button>
          </div>
        )}
      </div>
    </Dialog>
  );
}
