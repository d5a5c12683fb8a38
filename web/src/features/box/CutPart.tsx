import { withBody, withPortBuild } from '../../model/body';
import { withValue } from '../../model/design';
import { madeOf, pipes, pipesOf } from '../../model/pipes';
import { inWords } from '../../model/preferences';
import type { PortCutReport, RadiatorReport, RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { useObserved } from '../../ui/observed';
import { Select } from '../../ui/Select';
import { BodyField, type Editing } from './BodyField';
import { PipeList } from './PipeList';

type List = 'ports' | 'front_ports';

interface PortProps extends Editing {
  cut: PortCutReport;
  list: List;
  at: number;
  round: boolean;
  /** The design as fields of this port read it. */
  here: RawDesign;
}

const mm = (metres: number, digits = 1) => inWords(`${(metres * 1e3).toFixed(digits)} mm`);
const across = (area: number) => mm(Math.sqrt((4 * area) / Math.PI), 0);

/** What to cut for a port: pipe, flares, hole, and whether it is large enough. */
export function PortCut({ cut, list, at, round, here, ...editing }: PortProps) {
  const { design, edit } = editing;
  const chamber = list === 'ports' ? 'enclosure' : 'enclosure.front';
  const path = (key: string) => `body.ports[${at}].${key}`;
  const write = (key: 'outer_flare' | 'inner_flare' | 'flange') => (typed: unknown) =>
    withPortBuild(design, list, at, { [key]: typed as string | null });
  const [profile = 0, half = 0] = cut.straight;
  const flared = Math.abs(cut.overall - profile) > 1e-6;
  const offered = pipesOf(useObserved(pipes));
  const [speed = 0, frequency = 0] = cut.fastest;
  const [slow = 0, fast = 0] = cut.least;
  const needs = cut.small == null ? '' : ` Small's rule (0.8 Fb Vd) asks for ${across(cut.small)}.`;
  return (
    <>
      {round && (
        <div className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-2">
          <span>Stock pipe or kit</span>
          <Select
            label={`Pipe of the ${cut.name}`}
            value=""
            options={[
              ['', 'Choose'],
              ...offered.map(
                ({ name, inside }) =>
                  [name, `${name}, ${(inside * 1e3).toFixed(0)} mm inside`] as [string, string],
              ),
            ]}
            onChange={(name) => {
              const pipe = offered.find((one) => one.name === name);
              if (!pipe) return;
              const { diameter, build } = madeOf(pipe);
              const wide = withValue(design, `${chamber}.ports[${at}].diameter`, diameter);
              edit(withPortBuild(wide, list, at, build), 'pipe');
            }}
          />
        </div>
      )}
      {round && <PipeList />}
      <BodyField
        {...editing}
        design={here}
        name="Edge rounded outside"
        path={path('outer_flare')}
        follows={0}
        write={write('outer_flare')}
      />
      <BodyField
        {...editing}
        design={here}
        name="Edge rounded inside"
        path={path('inner_flare')}
        follows={0}
        write={write('inner_flare')}
      />
      {round && (
        <BodyField
          {...editing}
          design={here}
          name="Flange outside"
          path={path('flange')}
          write={write('flange')}
        />
      )}
      <ul aria-label={`What to cut for the ${cut.name}`} className="list-disc pl-5 text-[0.964rem]">
        {flared ? (
          <li>
            {`Straight piece between the flares ${mm(profile)} by the flares' real profile; counting half of each flare it would be ${mm(half)}. ` +
              `The first is used. ${mm(cut.overall)} from end to end.`}
          </li>
        ) : (
          <li>{`${mm(cut.overall)} from end to end.`}</li>
        )}
        <li>
          {round
            ? `Hole ${mm(cut.hole[1] ?? 0)} across${cut.seen > (cut.hole[1] ?? 0) ? `, ${mm(cut.seen)} are seen outside` : ''}.`
            : `Hole ${mm(cut.hole[0] ?? 0)} by ${mm(cut.hole[1] ?? 0)} with its boards.`}{' '}
          {!cut.passes &&
            round &&
            `The inner flare, ${mm(cut.inner)}, does not go through it: fit it from inside before the box is closed.`}
        </li>
        {cut.fittings && cut.fittings.pieces.length > 0 && (
          <li className={cut.fittings.pieces.some((piece) => piece < 0) ? 'text-short' : ''}>
            {`Bent: ${cut.fittings.pieces.length - 1} elbows of 90° and straight pieces of ${cut.fittings.pieces.map((piece) => mm(piece, 0)).join(', ')} ` +
              `from shoulder to shoulder, for elbows of ${mm(cut.fittings.elbow, 0)} from corner to shoulder; measure yours. ` +
              `Add ${mm(cut.fittings.socket, 0)} for each socket a piece goes into.`}
            {cut.fittings.pieces.some((piece) => piece < 0) &&
              ' Two elbows overlap: use a wider loop, one turn less or a slot.'}
          </li>
        )}
        {cut.fittings && (
          <li>
            {`Fittings of this pipe: a coupling ${mm(cut.fittings.coupling[0] ?? 0, 0)} wide outside and ${mm(cut.fittings.coupling[1] ?? 0, 0)} long; ` +
              `a cap of ${mm(cut.fittings.cap, 0)}, which also closes it to measure the box with its port blocked.`}
          </li>
        )}
        <li className={speed > 34 ? 'text-short' : ''}>
          {`Fastest air ${speed.toFixed(1)} m/s at ${frequency.toFixed(0)} Hz at this drive. 17 m/s (straight edges) would take the area of one tube of ${across(slow)}, ` +
            `34 m/s (generous flares) of one of ${across(fast)}; there is that of ${across(cut.area)}.${needs}`}
        </li>
      </ul>
    </>
  );
}

interface RadiatorProps extends Editing {
  report: RadiatorReport;
}

/** The mass on radiators as washers, and what they do with it. */
export function RadiatorCut({ report, ...editing }: RadiatorProps) {
  const { design, edit } = editing;
  const { added, washers, each, bolt, built, tuning, notch, sag, travel, xmax, moves, words } = report;
  const [asked = 0, comes = 0] = tuning;
  const grams = (mass: number) => inWords(`${(mass * 1e3).toFixed(1)} g`);
  const off = Math.abs(built - added) > 5e-5;
  const write = (key: 'each' | 'bolt') => (typed: unknown) => {
    const kept = { ...design.body?.washers, [key]: typed as string | null };
    const filled = Object.fromEntries(Object.entries(kept).filter(([, value]) => value != null));
    return withBody(design, { washers: Object.keys(filled).length ? filled : null });
  };
  return (
    <section aria-label="Mass on the radiators" className="flex flex-col gap-1">
      <h3>Mass on the radiators</h3>
      <BodyField {...editing} name="Added mass" path="enclosure.radiator.added_mass" follows={added} />
      <BodyField {...editing} name="A washer" path="body.washers.each" follows={each} write={write('each')} />
      <BodyField
        {...editing}
        name="Bolt and nut"
        path="body.washers.bolt"
        follows={bolt}
        write={write('bolt')}
      />
      <p>
        {washers || built > 0
          ? `${washers} washers with bolt and nut on each: ${grams(built)} for ${grams(added)}. `
          : 'Nothing to screw on. '}
        Tuned to <b className="font-mono">{comes.toFixed(1)} Hz</b>
        {Math.abs(comes - asked) > 0.05 && ` instead of ${asked.toFixed(1)} Hz`}; cancels the cone at{' '}
        {notch.toFixed(1)} Hz.
      </p>
      {off && (
        <div>
          <Button
            onClick={() =>
              edit(
                withValue(design, 'enclosure.radiator.added_mass', `${(built * 1e3).toFixed(1)} g`),
                'added mass',
              )
            }
          >
            Design for whole washers: {grams(built)}
          </Button>
        </div>
      )}
      <p>
        {`Moves ${mm(travel[0] ?? 0)} one way at ${(travel[1] ?? 0).toFixed(0)} Hz at this drive${xmax == null ? '' : ` of ${mm(xmax)}`}; lying level it would sag by ${mm(sag)}.`}
        {moves != null && ` All together move ${moves.toFixed(1)} times what the cones can.`}
      </p>
      <p className={words.startsWith('Travel') ? 'text-met' : 'font-semibold text-short'}>{inWords(words)}</p>
      <p className="text-[0.929rem] text-soft">
        Two stand opposite each other, so that their forces cancel. Secure every nut: loose weights rattle.
      </p>
    </section>
  );
}
