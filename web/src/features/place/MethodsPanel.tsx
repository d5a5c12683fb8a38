import { inWords } from '../../model/preferences';
import type { PanelProps } from './panel';

/** Where builders disagree about rooms, with what each way gives here. */
export function MethodsPanel({ report }: PanelProps) {
  return (
    <div className="flex flex-col gap-2">
      {report?.debates.map(({ name, words }) => (
        <section key={name} aria-label={name}>
          <h2 className="text-[1.071rem]">{name}</h2>
          <p>{inWords(words)}</p>
        </section>
      ))}
    </div>
  );
}
