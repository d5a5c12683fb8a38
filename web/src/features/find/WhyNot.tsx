import { useDeferredValue, useState } from 'react';
import { askDrivers, useDrivers } from '../../api/queries/library';

interface Props {
  onChoose: (driver: string, name: string) => void;
}

const matching = (text: string) => ({ find: text, limit: 6, sort: 'name' as const });

/** Looks any driver of the library up, to see why it is not among the best. */
export function WhyNot({ onChoose }: Props) {
  const [text, setText] = useState('');
  const wanted = useDeferredValue(text.trim());
  const page = useDrivers(matching(wanted));
  const matches = wanted ? (page.data?.drivers ?? []) : [];

  // What is listed may still be the answer to a shorter text, so the whole text is asked for.
  const takeFirst = async () => {
    const first = (await askDrivers(matching(text.trim()))).drivers[0];
    if (!first) return;
    onChoose(first.id, first.document.name ?? '');
    setText('');
  };
  return (
    <div className="relative flex flex-1 items-center gap-2">
      <label className="flex flex-1 items-center justify-end gap-2">
        Why not
        <input
          className="field max-w-56"
          placeholder="any driver of the library"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Escape') setText('');
            if (event.key === 'Enter' && text.trim()) void takeFirst();
          }}
        />
      </label>
      {matches.length > 0 && (
        <ul className="absolute top-full right-0 z-20 mt-1 w-56 rounded border border-line bg-card py-1 shadow-lg">
          {matches.map((driver) => (
            <li key={driver.id}>
              <button
                type="button"
                className="w-full px-3 py-1 text-left hover:bg-rule"
                onClick={() => {
                  onChoose(driver.id, driver.document.name ?? '');
                  setText('');
                }}
              >
                {driver.document.name}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
