import { expect, test } from 'vitest';
import type { BodyReport, RawDesign, Report } from '../schema/types';
import { layOutBuilt } from './built';
import { handlesOf } from './handles';
import type { Subject } from './scene';

const square = (x: number, y: number, width: number, height: number) => [
  [x, y],
  [x + width, y],
  [x + width, y + height],
  [x, y + height],
];

const stroke = (part: string, points: number[][], closed = true) => ({ part, line: 'cut', closed, points });

const mounted = (kind: string, change: object) => ({
  kind,
  name: kind,
  index: 0,
  chamber: 0,
  face: 'front',
  at: [0.2, 0.3],
  mouth: [0, 0.3, 0.4],
  normal: [0, 0, 1],
  across: 0.2,
  tall: null,
  frame: 0.25,
  path: [],
  ...change,
});

function subject(parts: object[], strokes: object[] = [], fold: object | null = null): Subject {
  const body = {
    outside: [0.4, 0.5, 0.4],
    inside: [0.36, 0.46, 0.36],
    solved: [false, false, false],
    parts,
    fold,
    drawings: [
      {
        view: 'side',
        strokes: [
          stroke('boards', square(0, 0, 0.4, 0.5)),
          stroke('chamber', square(0.02, 0.02, 0.36, 0.46)),
          ...strokes,
        ],
      },
    ],
  } as unknown as BodyReport;
  const design = {
    enclosure: { family: 'ported', volume: '50 l' },
    driver: { size: '250 mm', depth: '110 mm' },
    body: {},
  } as unknown as RawDesign;
  return {
    design,
    report: { driver: { sd: 0.0346 }, as_built: { volumes: [0.04, null] } } as unknown as Report,
    body,
  };
}

test('drivers beside each other stand in one place of the section, others in their own', () => {
  const three = [
    mounted('driver', { mouth: [-0.1, 0.3, 0.4] }),
    mounted('driver', { mouth: [0.1, 0.3, 0.4] }),
    mounted('driver', { mouth: [0, 0.1, 0.4] }),
  ];
  const one = subject(three);
  const scene = layOutBuilt(one, one.body as BodyReport);
  const drawn = scene?.parts.filter(({ kind }) => kind === 'driver');
  expect(drawn?.map((part) => part.kind === 'driver' && part.y.toFixed(2))).toEqual(['0.28', '0.08']);
});

test('what looks at the reader is a disc', () => {
  const one = subject([mounted('driver', { normal: [-1, 0, 0] })]);
  const kinds = layOutBuilt(one, one.body as BodyReport)?.parts.map(({ kind }) => kind);
  expect(kinds).toContain('disc');
  expect(kinds).not.toContain('driver');
});

test('a chamber that ends before the wall shows its board, and what lies beyond is open and not wood', () => {
  const strokes = [
    stroke('unused space', square(0.02, 0.34, 0.2, 0.12)),
    stroke('end board of the chamber', square(0.22, 0.34, 0.018, 0.12)),
  ];
  const one = subject([], strokes, { panels: [] });
  const parts = layOutBuilt(one, one.body as BodyReport)?.parts ?? [];
  const walls = parts.find((part) => part.kind === 'walls');
  expect(walls?.kind === 'walls' && walls.inner).toHaveLength(2);
  expect(parts.filter(({ kind }) => kind === 'board')).toHaveLength(1);
});

test('a fold shows its boards, its mouth and the middle of the path, and its boards can be pulled', () => {
  const strokes = [
    stroke('fold board 1', square(0.02, 0.2, 0.25, 0.018)),
    stroke('fold board 1', [
      [0.36, 0.46],
      [0.38, 0.44],
      [0.38, 0.46],
    ]),
    stroke('mouth', square(0.38, 0.02, 0.02, 0.1)),
    stroke(
      'way',
      [
        [0.02, 0.4],
        [0.3, 0.4],
      ],
      false,
    ),
  ];
  const fold = { panels: [{ middle: 0.27 }] };
  const one = subject([mounted('mouth', {})], strokes, fold);
  const scene = layOutBuilt(one, one.body as BodyReport);
  if (!scene) throw new Error('nothing drawn');
  const kinds = scene.parts.map(({ kind }) => kind);
  expect(kinds.filter((kind) => kind === 'slab')).toHaveLength(2);
  expect(kinds).toContain('mouth');
  expect(kinds).toContain('flow');
  const handles = handlesOf(one, scene).filter(({ id }) => id.startsWith('fold'));
  expect(handles.map(({ label }) => label)).toEqual(['Place of fold board 1']);
  // From the top: up by 10 mm is 10 mm less.
  expect(handles[0]?.pull(0.01)?.body?.fold?.panels).toEqual([{ at: '260 mm' }]);
});

test('equal ports have one length to pull', () => {
  const path = [
    [0, 0.1, 0.4],
    [0, 0.1, 0.1],
  ];
  const two = [0.1, -0.1].map((x) =>
    mounted('port', { mouth: [x, 0.1, 0.4], across: 0.1, frame: null, path }),
  );
  const one = subject(two);
  const scene = layOutBuilt(one, one.body as BodyReport);
  if (!scene) throw new Error('nothing drawn');
  const figures = { ports: [{ length: 0.3 }], rear_ports: [] };
  const report = { ...one.report, figures } as unknown as Report;
  const ports = handlesOf({ ...one, report }, scene).filter(({ label }) => label.startsWith('Length'));
  expect(ports.map(({ id }) => id)).toEqual(['enclosure.ports[0].length']);
});

test('a port that turns is a passage for its first leg and a way for the air through all of it', () => {
  const path = [
    [0, 0.1, 0.4],
    [0, 0.1, 0.1],
    [0, 0.3, 0.1],
  ];
  const one = subject([mounted('port', { across: 0.1, frame: null, path })]);
  const parts = layOutBuilt(one, one.body as BodyReport)?.parts ?? [];
  const port = parts.find(({ kind }) => kind === 'port');
  expect(port?.kind === 'port' && port.text).toBe('500 mm, folded');
  const flow = parts.find(({ kind }) => kind === 'flow');
  expect(flow?.kind === 'flow' && flow.points).toHaveLength(3);
});
