import { useConditions } from '../../api/conditions';
import {
  FILL_MATERIALS,
  portsAt,
  type Shape,
  withBranch,
  withFill,
  withInnerEnd,
  withoutSegment,
  withPorts,
  withSegment,
  withShape,
} from '../../model/design';
import type { RawDesign, RawDriverArray, RawPort, RawSegment } from '../../schema/types';
import { SpacePicture } from '../../section/SpacePicture';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Icon } from '../../ui/Icon';
import { Select } from '../../ui/Select';
import type { Kind } from './groups';

interface Props {
  design: RawDesign;
  kind: Kind;
  onChange: (next: RawDesign, label: string) => void;
}

/** What can be chosen, rather than typed, in a group. */
export function KindChoices({ design, kind, onChange }: Props) {
  switch (kind.of) {
    case 'port':
      return <PortKind design={design} chamber={kind.chamber} at={kind.at} onChange={onChange} />;
    case 'inner_end':
      return <InnerEnd design={design} chamber={kind.chamber} at={kind.at} onChange={onChange} />;
    case 'segment':
      return <SegmentKind design={design} at={kind.at} onChange={onChange} />;
    case 'chamber':
      return <ChamberKind design={design} chamber={kind.chamber} onChange={onChange} />;
    case 'stub':
      return <StubKind design={design} onChange={onChange} />;
    case 'curve':
      return null;
    case 'drivers':
      return <DriversKind design={design} onChange={onChange} />;
    case 'place':
      return <PlaceKind design={design} onChange={onChange} />;
  }
}

type Change = Pick<Props, 'design' | 'onChange'>;

const SHAPES = [
  ['round', 'Round'],
  ['slot', 'Slot'],
  ['corner', 'Corner'],
] as const;
const INNER_ENDS = [
  ['free', 'ends free in the box'],
  ['one_wall', 'along one wall'],
  ['two_walls', 'along two walls'],
  ['three_walls', 'along three walls'],
  ['flanged', 'ends in a wide wall'],
] as const;
const MOST_PORTS = 8;

function PortKind({ design, chamber, at, onChange }: Change & { chamber: string; at: number }) {
  const ports = portsAt(design, chamber);
  const port = ports[at];
  if (!port) return null;
  const put = (next: RawPort[], label: string) => onChange(withPorts(design, chamber, next), label);
  const others = ports.filter((_, index) => index !== at);
  return (
    <>
      <Choice<Shape>
        label="Shape of the port"
        value={port.shape}
        options={SHAPES}
        onChange={(shape) => onChange(withShape(design, chamber, at, shape), 'port')}
      />
      {ports.length < MOST_PORTS && (
        <Button
          title="Another port beside this one"
          onClick={() => put([...ports, { ...port }], 'another port')}
        >
          <Icon name="plus" /> Port
        </Button>
      )}
      {others.length > 0 && (
        <Button aria-label="Remove this port" onClick={() => put(others, 'port removed')}>
          <Icon name="close" />
        </Button>
      )}
    </>
  );
}

/** Where a port ends in the box, and so how much air moves with it. */
function InnerEnd({ design, chamber, at, onChange }: Change & { chamber: string; at: number }) {
  return (
    <Select
      label="Inner end of the port"
      className="min-w-44 max-w-48"
      value={portsAt(design, chamber)[at]?.inner_end ?? 'free'}
      options={INNER_ENDS}
      onChange={(inner_end) => onChange(withInnerEnd(design, chamber, at, inner_end), 'port')}
    />
  );
}

const FLARES = [
  ['conical', 'straight sides'],
  ['exponential', 'exponential'],
  ['hyperbolic', 'hyperbolic'],
  ['tractrix', 'tractrix'],
  ['parabolic', 'parabolic'],
] as const;
const FRAMES = [
  ['limp', 'loose fill'],
  ['rigid', 'held fill'],
] as const;
const MOUTHS = [
  ['flanged', 'mouth in its own wall'],
  ['walls', 'mouth meets the room'],
  ['free', 'mouth a bare pipe'],
] as const;
const MOST_SEGMENTS = 8;

function SegmentKind({ design, at, onChange }: Change & { at: number }) {
  const passage = design.enclosure.passage;
  const segments = passage?.segments ?? [];
  const segment = segments[at];
  if (!segment) return null;
  const put = (name: string, value: unknown) =>
    onChange(withBranch(design, `enclosure.passage.segments[${at}].${name}`, value), 'path');
  const last = at === segments.length - 1;
  const horn = ['front_horn', 'back_horn', 'tapped_horn'].includes(design.enclosure.family);
  return (
    <>
      <Select<NonNullable<RawSegment['flare']>>
        label="How this segment widens"
        value={segment.flare ?? 'conical'}
        options={FLARES}
        onChange={(flare) => put('flare', flare)}
      />
      {segment.fill_density && (
        <Select
          label="Whether the fill moves"
          value={segment.fill_frame ?? 'limp'}
          options={FRAMES}
          onChange={(frame) => put('fill_frame', frame)}
        />
      )}
      {last && design.enclosure.family !== 'mass_loaded_line' && (
        <Select
          label="How the mouth ends"
          value={passage?.mouth ?? (horn ? 'walls' : 'flanged')}
          options={MOUTHS}
          onChange={(mouth) => onChange(withBranch(design, 'enclosure.passage.mouth', mouth), 'mouth')}
        />
      )}
      {segments.length < MOST_SEGMENTS && (
        <Button
          title="Another segment at the end"
          onClick={() => onChange(withSegment(design), 'another segment')}
        >
          <Icon name="plus" /> Segment
        </Button>
      )}
      {segments.length > 1 && (
        <Button
          aria-label="Remove this segment"
          onClick={() => onChange(withoutSegment(design, at), 'segment removed')}
        >
          <Icon name="close" />
        </Button>
      )}
    </>
  );
}

function StubKind({ design, onChange }: Change) {
  const { stub } = design.enclosure.passage ?? {};
  const put = (value: unknown, label: string) =>
    onChange(withBranch(design, 'enclosure.passage.stub', value), label);
  return stub ? (
    <Button onClick={() => put(null, 'side pipe removed')}>
      <Icon name="close" /> Side pipe
    </Button>
  ) : (
    <Button
      title="A closed pipe at the drivers, a quarter of a wave long where it works"
      onClick={() => put({ flare: 'conical', length: '0.5 m', start: '200 cm2' }, 'side pipe')}
    >
      <Icon name="plus" /> Side pipe
    </Button>
  );
}

const FILLS = [
  ['none', 'no fill'],
  ['lined', 'walls lined'],
  ['half', 'half filled'],
  ['full', 'filled loosely'],
  ['packed', 'packed'],
  ['weighed', 'fill by weight'],
] as const;

function ChamberKind({ design, chamber, onChange }: Change & { chamber: string }) {
  const here = chamber === 'enclosure' ? design.enclosure : design.enclosure.front;
  const fill = here?.fill_density ? 'weighed' : (here?.fill ?? '');
  const counted = fill || here?.qa || here?.gain;
  return (
    <>
      <Select
        label="Fill of the chamber"
        className="min-w-[9.3rem]"
        value={fill}
        options={[['', counted ? 'custom fill' : 'no absorption'], ...FILLS]}
        onChange={(next) => onChange(withFill(design, chamber, next || null), 'fill')}
      />
      {here?.fill_density && (
        <Select
          label="What the fill is of"
          className="min-w-[9.3rem]"
          value={here.fill_material ?? 'polyester'}
          options={FILL_MATERIALS}
          onChange={(of) => onChange(withBranch(design, `${chamber}.fill_material`, of), 'fill')}
        />
      )}
    </>
  );
}

const COILS = [
  ['', 'coils as on the sheet'],
  ['series', 'coils in series'],
  ['parallel', 'coils in parallel'],
  ['one', 'one coil, the other open'],
  ['one_shorted', 'one coil, the other shorted'],
  ['one_loaded', 'one coil, the other across a resistor'],
] as const;
const PAIRS = [
  ['', 'single'],
  ['face_to_face', 'pair, face to face'],
  ['in_line', 'pair, in line'],
  ['back_to_back', 'pair, back to back'],
] as const;
const PAIR_COILS = [
  ['parallel', 'pair in parallel'],
  ['series', 'pair in series'],
] as const;
const AIRS = [
  ['real', 'with the air between'],
  ['ideal', 'as if rigid between'],
] as const;

function DriversKind({ design, onChange }: Change) {
  const driver_array: RawDriverArray = design.driver_array ?? {};
  const pair = driver_array.isobaric;
  const put = (name: string, value: unknown) =>
    onChange(withBranch(design, `driver_array.${name}`, value), 'drivers');
  const dual = design.driver.coils && design.driver.coils !== 'single';
  return (
    <>
      {dual && (
        <Select
          label="How the coils are used"
          value={driver_array.coils ?? ''}
          options={COILS}
          onChange={(coils) => put('coils', coils || null)}
        />
      )}
      <Select
        label="Isobaric pairs"
        value={pair?.arrangement ?? ''}
        options={PAIRS}
        onChange={(arrangement) => put('isobaric', arrangement ? { ...pair, arrangement } : null)}
      />
      {pair && (
        <>
          <Select
            label="Wiring of a pair"
            value={pair.coils_in_series ? 'series' : 'parallel'}
            options={PAIR_COILS}
            onChange={(wiring) => put('isobaric.coils_in_series', wiring === 'series')}
          />
          <Select
            label="Air between the cones"
            value={pair.ideal ? 'ideal' : 'real'}
            options={AIRS}
            onChange={(air) => put('isobaric.ideal', air === 'ideal')}
          />
        </>
      )}
    </>
  );
}

const SPACES = [
  ['half', 'on the ground (2π)'],
  ['full', 'free on all sides (4π)'],
  ['quarter', 'against a wall (π)'],
  ['eighth', 'in a corner (π/2)'],
] as const;

function PlaceKind({ design, onChange }: Change) {
  const { brief } = useConditions();
  const said = SPACES.find(([space]) => space === brief?.space)?.[1];
  return (
    <>
      {!brief?.space && (
        <fieldset className="flex flex-wrap gap-1.5">
          <legend className="sr-only">Space it radiates into</legend>
          {SPACES.map(([space, name]) => (
            <button
              key={space}
              type="button"
              aria-pressed={(design.space ?? 'half') === space}
              className="flex items-center gap-1 rounded-[3px] border border-line bg-card pr-2 text-[0.929rem] hover:border-oak aria-pressed:border-oak aria-pressed:bg-rule"
              onClick={() => onChange({ ...design, space }, 'space')}
            >
              <SpacePicture space={space} /> {name}
            </button>
          ))}
        </fieldset>
      )}
      {said && <p className="text-soft">The brief says: {said}.</p>}
    </>
  );
}
