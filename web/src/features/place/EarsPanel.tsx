import { inWords } from '../../model/preferences';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import { type PanelProps, PlaceValues, without } from './panel';

const WALLS = [
  ['', 'Choose a usual wall …'],
  ['12 kg/m2', 'wooden boards, 12 kg/m²'],
  ['25 kg/m2', 'plasterboard on studs, 25 kg/m²'],
  ['47 kg/m2', 'steel, 6 mm, 47 kg/m²'],
  ['200 kg/m2', 'brick, half a brick thick, 200 kg/m²'],
  ['400 kg/m2', 'concrete, 17 cm, 400 kg/m²'],
] as const;

/** How long ears stand it, and what the neighbours hear. */
export function EarsPanel({ place, report, error, onEdit }: PanelProps) {
  const put = (change: object) => onEdit(without({ ...place, ...change }), 'ears and neighbours');
  const { exposure, neighbours } = report ?? {};
  return (
    <div className="flex flex-col gap-2">
      <h2 className="text-[1.071rem]">Will it harm ears?</h2>
      {exposure && (
        <p>
          {inWords(exposure.words)} After NIOSH 98-126: 85 dB(A) for 8 hours, half the time for every 3 dB
          more.
        </p>
      )}
      <h2 className="text-[1.071rem]">Will it shake the neighbours?</h2>
      {neighbours ? (
        <>
          <p>{inWords(neighbours.words)}</p>
          <Table
            rows={neighbours.bands}
            keyOf={({ frequency }) => frequency}
            columns={[
              { name: 'Octave', names: true, cell: ({ frequency }) => `${frequency} Hz` },
              { name: 'Inside', kind: 'figure', cell: ({ inside }) => `${inside.toFixed(0)} dB` },
              { name: 'Wall', kind: 'figure', cell: ({ reduction }) => `−${reduction.toFixed(0)} dB` },
              { name: 'Next door', kind: 'figure', cell: ({ beyond }) => `${beyond.toFixed(0)} dB` },
              { name: 'Just audible', kind: 'figure', cell: ({ threshold }) => `${threshold.toFixed(0)} dB` },
            ]}
          />
        </>
      ) : (
        <p>Say what wall lies between, and it is estimated by its mass.</p>
      )}
      <Select
        label="Usual walls"
        value=""
        options={WALLS}
        onChange={(mass) => mass && put({ wall_mass: mass })}
      />
      <PlaceValues
        error={error}
        rows={[
          { path: 'wall_mass', typed: place.wall_mass, onType: (typed) => put({ wall_mass: typed }) },
          { path: 'hours', typed: place.hours, onType: (typed) => put({ hours: typed }) },
        ]}
      />
    </div>
  );
}
