import type { ReactNode } from 'react';
import { Refusal } from '../../api/client';
import { MATERIALS } from '../../model/body';
import { asRead, inWords } from '../../model/preferences';
import { fieldAt } from '../../model/units';
import { AS_USUAL, editWorkshop, workshopOn } from '../../model/workshop';
import type { RawMaterial, RawSheet, RawWorkshop, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { HelpText } from '../../ui/HelpText';
import { QuantityInput } from '../../ui/QuantityInput';
import { Scroll } from '../../ui/Scroll';
import { Select } from '../../ui/Select';

import { readsInches } from './lengths';
import type { SheetProps } from './sheet';

type Options<Value extends string> = readonly (readonly [Value, string])[];

const GLUES: Options<NonNullable<RawWorkshop['glue']>> = [
  ['pva', 'Wood glue (PVA)'],
  ['polyurethane', 'Polyurethane'],
  ['construction', 'Construction adhesive'],
];
const ASSEMBLIES: Options<NonNullable<RawWorkshop['assembly']>> = [
  ['clamps', 'Clamps only'],
  ['nails', 'Brads from a nailer'],
  ['screws', 'Screws from outside'],
  ['pocket_screws', 'Pocket screws'],
];
const FIXINGS: Options<NonNullable<RawWorkshop['fixing']>> = [
  ['wood_screws', 'Wood screws'],
  ['t_nuts', 'T-nuts'],
  ['inserts', 'Threaded inserts'],
];
const FINISHES: Options<NonNullable<RawWorkshop['finish']>> = [
  ['raw', 'Left raw'],
  ['rolled', 'Eggshell, rolled'],
  ['texture', 'Textured paint, sprayed'],
  ['gloss', 'High gloss'],
  ['veneer', 'Veneer, clear coat'],
  ['stain', 'Gel stain, clear coat'],
  ['clear', 'Clear coat'],
  ['carpet', 'Carpet'],
];
const FEET: Options<NonNullable<RawWorkshop['feet']>> = [
  ['rubber', 'Rubber feet'],
  ['spikes', 'Spikes'],
  ['plinth', 'Plinth'],
  ['none', 'None'],
];
const TERMINALS: Options<NonNullable<RawWorkshop['terminal']>> = [
  ['cup', 'Terminal cup'],
  ['posts', 'Binding posts'],
  ['locking', 'Locking connector'],
  ['none', 'None'],
];
const LEADS: Options<NonNullable<RawWorkshop['leads']>> = [
  ['spades', 'Crimped spades'],
  ['rings', 'Ring terminals'],
  ['soldered', 'Soldered'],
];
const PAPERS: Options<NonNullable<RawWorkshop['paper']>> = [
  ['a4', 'A4'],
  ['letter', 'Letter'],
];

/** What is usual where nothing is said, as one reads it. */
const USUAL: Record<string, string> = {
  kerf: '3.2 mm',
  trim: '5 mm',
  oversize: '0 mm',
  hatch_width: 'whole',
  hatch_length: 'whole',
  kit: 'no kit',
  coats: 'as usual',
  round_over: '0 mm',
  handles: '0',
  slack: '300 mm',
  hand: '100 mm',
  cutter: '12 mm',
  bush: '17 mm',
  temperature: '20 °C',
};

/** How it is made: sheets and saw, joints, hardware, finish. Everything has a usual value. */
export function WorkshopSheet({ workbench, bench, plan, error }: SheetProps) {
  const refusal = error instanceof Refusal ? error : null;
  const workshop: RawWorkshop = workshopOn(bench) ?? AS_USUAL;
  const edit = (change: object) => editWorkshop(workbench, change, 'workshop');
  const sheets = workshop.sheets ?? [];
  const setSheet = (at: number, change: Partial<RawSheet>) =>
    edit({
      sheets: sheets.map((sheet, index) =>
        index === at
          ? Object.fromEntries(Object.entries({ ...sheet, ...change }).filter(([, value]) => value != null))
          : sheet,
      ),
    });
  const choice = <Value extends string>(name: keyof RawWorkshop, label: string, options: Options<Value>) => (
    <Row label={label}>
      <Select
        label={label}
        value={workshop[name] as Value}
        options={options}
        onChange={(value) => edit({ [name]: value })}
      />
    </Row>
  );
  const flag = (name: keyof RawWorkshop, label: string) => (
    <label className="flex items-center gap-1.5">
      <input
        type="checkbox"
        checked={Boolean(workshop[name])}
        onChange={(event) => edit({ [name]: event.target.checked || null })}
      />
      {label}
    </label>
  );
  return (
    <Scroll label="Workshop" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
      <HelpText otherwise="Parts, steps, calendar and cost follow from what is chosen here.">
        {(explain) => {
          const value = (name: string) => {
            const field = fieldAt(`workshop.${name}`);
            return (
              <Row label={field.symbol} {...explain(field)}>
                <QuantityInput
                  label={field.symbol}
                  fields={[field]}
                  typed={(workshop[name as keyof RawWorkshop] as Typed | undefined) ?? null}
                  follows={String(asRead(USUAL[name] ?? '', field))}
                  error={refusal?.errorOf(`conditions.workshop.${name}`)}
                  optional
                  className="w-full font-mono text-[0.929rem]"
                  onType={(_, typed) => edit({ [name]: typed })}
                />
              </Row>
            );
          };
          return (
            <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-3 md:grid-cols-2 xl:grid-cols-3">
              <Group name="Saw and router">
                {value('kerf')}
                {value('trim')}
                {value('oversize')}
                {value('hatch_width')}
                {value('hatch_length')}
                {value('kit')}
                {value('cutter')}
                {value('bush')}
                {flag('any_grain', 'Grain may run any way')}
              </Group>
              <Group name="Putting it together">
                {choice('glue', 'Glue', GLUES)}
                {choice('assembly', 'Held by', ASSEMBLIES)}
                {choice('fixing', 'Drivers on', FIXINGS)}
                {value('hand')}
                {value('temperature')}
                {flag('mock_up', 'A test box from offcuts first')}
                {flag('mirrored', 'A pair is mirrored')}
              </Group>
              <Group name="Finish">
                {choice('finish', 'Finish', FINISHES)}
                {value('coats')}
                {value('round_over')}
                {choice('feet', 'Feet', FEET)}
                {value('handles')}
                {flag('corners', 'Corner protectors')}
                {flag('grille', 'Grille')}
              </Group>
              <Group name="Leads and paper">
                {choice('terminal', 'Lead comes in by', TERMINALS)}
                {choice('leads', 'At the driver', LEADS)}
                {value('slack')}
                {choice('paper', 'Paper', PAPERS)}
              </Group>
              <div className="md:col-span-2">
                <h3 className="border-line border-b font-semibold">Sheets and offcuts</h3>
                {!sheets.length && (
                  <p className="text-[0.929rem] text-soft">
                    Whole, half and quarter sheets of {inWords('1220 × 2440 mm')} at usual prices, until you
                    name your own.
                  </p>
                )}
                <ul>
                  {sheets.map((sheet, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: sheets are told apart by their place
                    <li key={at} className="flex flex-wrap items-end gap-1.5 py-1">
                      <Select
                        label={`Material of sheet ${at + 1}`}
                        value={sheet.material ?? 'mdf'}
                        options={MATERIALS}
                        className="max-w-40"
                        onChange={(material) => setSheet(at, { material })}
                      />
                      {(['thickness', 'width', 'height', 'price', 'at_hand'] as const).map((name) => {
                        const field = fieldAt(`workshop.sheets.${name}`);
                        return (
                          <div
                            key={name}
                            className="flex w-24 flex-col text-[0.857rem] text-soft"
                            {...explain(field)}
                          >
                            {field.symbol}
                            <QuantityInput
                              label={`${field.symbol} of sheet ${at + 1}`}
                              fields={[field]}
                              typed={sheet[name] ?? null}
                              follows={name === 'price' ? 'usual' : name === 'at_hand' ? 'sold' : ''}
                              optional={name === 'price' || name === 'at_hand'}
                              error={refusal?.errorOf(`conditions.workshop.sheets[${at}].${name}`)}
                              className="w-full font-mono text-ink"
                              onType={(_, typed) => setSheet(at, { [name]: typed })}
                            />
                          </div>
                        );
                      })}
                      <Button
                        aria-label={`Remove sheet ${at + 1}`}
                        onClick={() => edit({ sheets: sheets.filter((_, index) => index !== at) })}
                      >
                        Remove
                      </Button>
                    </li>
                  ))}
                </ul>
                <Button
                  disabled={sheets.length >= 24}
                  onClick={() => {
                    const [group] = plan.sheets;
                    const thickness = `${Math.round((group?.thickness ?? 0.018) * 1e4) / 10} mm`;
                    const material = (group?.material ?? 'mdf') as RawMaterial;
                    const [width, height] = readsInches() ? ['48 in', '96 in'] : ['1220 mm', '2440 mm'];
                    edit({ sheets: [...sheets, { material, thickness, width, height }] });
                  }}
                >
                  Add a sheet or offcut
                </Button>
              </div>
            </div>
          );
        }}
      </HelpText>
    </Scroll>
  );
}

function Group({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex flex-col gap-1">
      <h3 className="border-line border-b font-semibold">{name}</h3>
      {children}
    </div>
  );
}

function Row({ label, children, ...rest }: { label: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_11rem] items-center gap-2" {...rest}>
      <span aria-hidden="true" className="truncate">
        {label}
      </span>
      <span className="flex">{children}</span>
    </div>
  );
}
