import { bodyOf, FACES, portBuildAt, withBody, withPortBuild } from '../../model/body';
import { portsAt, withValue } from '../../model/design';
import { hasTwoChambers } from '../../model/families';
import { inWords } from '../../model/preferences';
import type { BodyReport, RawBrief, RawDesign, RawFace } from '../../schema/types';
import { Choice } from '../../ui/Choice';
import { Select } from '../../ui/Select';
import { SuggestionList } from '../workbench/FigureCard';
import { BodyField, type Editing } from './BodyField';
import { PortCut, RadiatorCut } from './CutPart';
import { Firing } from './Firing';
import { FoldPart } from './FoldPart';

interface Props extends Editing {
  report: BodyReport;
  brief: RawBrief | null;
  onTry: (design: RawDesign) => void;
  onBrief: (brief: RawBrief) => void;
}

type PlaceKey = 'driver' | 'radiator';

/** Where drivers, ports and radiators sit, how ports run, and what does not fit. */
export function AirTab(props: Props) {
  const { design, report, brief, onTry, onBrief } = props;
  const divided = hasTwoChambers(design.enclosure.family);
  const radiators = design.enclosure.family === 'passive_radiator';
  const driver = report.parts.find(({ kind }) => kind === 'driver');
  // In a way the design says how far along it sits.
  const along = report.fold !== null && report.chambers.length === 1;
  return (
    <div className="flex flex-col gap-3">
      <Findings report={report} />
      {report.findings.some(({ forbids }) => forbids) && (
        <SuggestionList
          title="Ways to fix it"
          check="fits"
          design={{ ...design, body: bodyOf(design) }}
          brief={brief ?? {}}
          onTry={onTry}
          onBrief={onBrief}
        />
      )}
      {report.fold && <FoldPart {...props} fold={report.fold} />}
      {driver?.face != null && <Placed {...props} of="driver" name="Driver" usual="front" along={along} />}
      {driver?.face != null && report.fold === null && <Firing design={design} onTry={onTry} />}
      {radiators && <Placed {...props} of="radiator" name="Radiators" usual="left" />}
      {report.radiators && <RadiatorCut {...props} report={report.radiators} />}
      {portsAt(design, 'enclosure').map((_, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: ports have no other name
        <Port key={at} {...props} list="ports" at={at} />
      ))}
      {divided &&
        portsAt(design, 'enclosure.front').map((_, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: ports have no other name
          <Port key={at} {...props} list="front_ports" at={at} />
        ))}
    </div>
  );
}

function Findings({ report: { findings } }: { report: BodyReport }) {
  if (!findings.length) return <p className="text-met">Everything fits, with air around it.</p>;
  return (
    <ul aria-label="What does not fit" className="flex flex-col gap-1">
      {findings.map(({ words, forbids }) => (
        <li
          key={words}
          className={`rounded-[3px] border px-2.5 py-1 ${forbids ? 'border-short bg-short-wash text-short' : 'border-line bg-card'}`}
        >
          {inWords(words)}
        </li>
      ))}
    </ul>
  );
}

function Placed(props: Props & { of: PlaceKey; name: string; usual: RawFace; along?: boolean }) {
  const { design, report, edit, of, name, usual, along } = props;
  const place = bodyOf(design)[of];
  const part = report.parts.find(({ kind }) => kind === of);
  const write = (key: 'across' | 'up') => (typed: unknown) =>
    place
      ? withValue(design, `body.${of}.${key}`, typed as string | null)
      : withBody(design, { [of]: { face: usual, [key]: typed } });
  return (
    <section aria-label={name} className="flex flex-col gap-1">
      <h3>{name}</h3>
      <div className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-2">
        <span>Mounted on</span>
        <Select
          label={`Board of the ${name.toLowerCase()}`}
          value={(place?.face ?? part?.face ?? usual) as RawFace}
          options={FACES}
          onChange={(face) => edit(withBody(design, { [of]: { face } }), 'place')}
        />
      </div>
      {!along && (
        <>
          <BodyField
            {...props}
            name="Middle, from the left"
            path={`body.${of}.across`}
            follows={part?.at[0]}
            write={write('across')}
          />
          <BodyField
            {...props}
            name="Middle, from below"
            path={`body.${of}.up`}
            follows={part?.at[1]}
            write={write('up')}
          />
        </>
      )}
      {of === 'driver' && <BodyField {...props} name="Frame let in" path="body.recess" follows={0} />}
    </section>
  );
}

function Port(props: Props & { list: 'ports' | 'front_ports'; at: number }) {
  const { design, report, edit, list, at } = props;
  const build = portBuildAt(design, list, at);
  const chamber = list === 'ports' ? 0 : 1;
  const part = report.parts.find((one) => one.kind === 'port' && one.index === at && one.chamber === chamber);
  const ports = portsAt(design, list === 'ports' ? 'enclosure' : 'enclosure.front');
  const cut = report.ports.find((one) => one.chamber === chamber && one.index === at);
  const name = `${list === 'front_ports' ? 'Front port' : 'Port'}${ports.length > 1 ? ` ${at + 1}` : ''}`;
  const write =
    (key: 'across' | 'up' | 'wall') =>
    (typed: unknown): RawDesign =>
      withPortBuild(design, list, at, { [key]: typed as string | null });
  const path = (key: string) => `body.ports[${at}].${key}`;
  const here = {
    ...props,
    design: { ...design, body: { ...bodyOf(design), ports: bodyOf(design)[list] ?? [] } },
  };
  return (
    <section aria-label={name} className="flex flex-col gap-1">
      <h3>{name}</h3>
      {part && <p className="text-soft">{runs(part)}</p>}
      {part?.face !== null && (
        <div className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-2">
          <span>Opens on the</span>
          <Select
            label={`Board of the ${name.toLowerCase()}`}
            value={(build.face ?? part?.face ?? 'front') as RawFace}
            options={FACES}
            onChange={(face) => edit(withPortBuild(design, list, at, { face }), 'place of the port')}
          />
        </div>
      )}
      <BodyField
        {...here}
        name="Middle, from the left"
        path={path('across')}
        follows={part?.at[0]}
        write={write('across')}
      />
      <BodyField
        {...here}
        name="Middle, from below"
        path={path('up')}
        follows={part?.at[1]}
        write={write('up')}
      />
      <BodyField
        {...here}
        name={ports[at]?.shape === 'round' ? 'Pipe wall' : 'Board'}
        path={path('wall')}
        follows={ports[at]?.shape === 'round' ? 0.004 : 0.018}
        write={write('wall')}
      />
      <div className="flex items-center justify-between gap-2">
        <span>Turns on its way in</span>
        <Choice
          label={`Turns of the ${name.toLowerCase()}`}
          value={String(build.turns ?? 0)}
          options={[
            ['0', 'None'],
            ['1', 'Once, an L'],
            ['2', 'Twice, a U'],
          ]}
          onChange={(turns) =>
            edit(withPortBuild(design, list, at, { turns: turns === '0' ? null : Number(turns) }), 'turns')
          }
        />
      </div>
      {cut && (
        <PortCut
          design={design}
          errors={props.errors}
          edit={edit}
          here={here.design}
          cut={cut}
          list={list}
          at={at}
          round={ports[at]?.shape === 'round'}
        />
      )}
    </section>
  );
}

function runs({ path, across, tall }: BodyReport['parts'][number]): string {
  const legs = path.slice(1).map((to, at) => {
    const from = path[at] ?? [];
    return Math.hypot(...[0, 1, 2].map((k) => (to[k] ?? 0) - (from[k] ?? 0)));
  });
  const total = legs.reduce((sum, leg) => sum + leg, 0);
  const size = tall
    ? `${Math.round(across * 1e3)} mm by ${Math.round(tall * 1e3)} mm`
    : `${Math.round(across * 1e3)} mm across`;
  const folded =
    legs.length > 1 ? `, in legs of ${legs.map((leg) => `${Math.round(leg * 1e3)} mm`).join(' and ')}` : '';
  return inWords(`${size} inside, ${Math.round(total * 1e3)} mm long along its middle${folded}.`);
}
