import { type ReactNode, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { answered, api } from '../../api/client';
import { createVariant, writeDocument } from '../../api/documents';
import { useBriefs } from '../../api/queries/builds';
import { useChange } from '../../api/queries/shared';
import { held } from '../../model/documents';
import { type Means, startDraft } from '../../model/start_draft';
import type { RawBrief, RawDesign, RawDriver } from '../../schema/types';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Message } from '../../ui/Message';
import { useObserved } from '../../ui/observed';
import { DriverForm } from '../drivers/DriverForm';
import { DriverTable } from '../drivers/DriverTable';
import { emptyDriver } from '../drivers/empty';
import { Shell } from '../shell/Shell';
import { Recommended } from './Recommended';
import { Sheet } from './Sheet';
import { Wish } from './Wish';

const MEANS = [
  ['paste', 'Paste its data sheet'],
  ['library', 'From the library'],
  ['type', 'Type it in'],
] as const;

/** The way to a first box: a woofer and a wish, in either order, and what they come to. What is said is kept until a box is made. */
export function StartPage() {
  const [from] = useInAddress('from', ['woofer', 'wish']);
  const draft = useObserved(startDraft);
  const templates = useBriefs();
  const navigate = useNavigate();
  const { driver } = draft;
  // Who has a woofer is shown a box at once; the wish can then be made one's own.
  const brief = draft.brief ?? (driver ? (templates.data?.[0]?.brief ?? null) : null);
  const setBrief = (next: RawBrief) => startDraft.set({ brief: next });
  const make = useChange('builds', async (design: RawDesign) => {
    const id = crypto.randomUUID();
    const body = { name: nameOf(design, brief), notes: '' };
    await answered(api.PUT('/api/v1/builds/{id}', { params: { path: { id } }, body }));
    if (brief) await writeDocument(id, 'brief', crypto.randomUUID(), 0, held(brief));
    await createVariant(id, design);
    if (!draft.known) await answered(api.POST('/api/v1/drivers', { body: design.driver }));
    return id;
  });
  const begin = (design: RawDesign) =>
    make.mutate(design, {
      onSuccess: (id) => {
        startDraft.reset();
        navigate(`/builds/${id}`);
      },
    });
  const woofer = (
    <Step title="The woofer" done={driver !== null}>
      {driver ? (
        <p className="flex flex-wrap items-center gap-2">
          <b>{driver.name}</b>
          <span className="font-mono text-[0.929rem] text-soft">{inShort(driver)}</span>
          <Button onClick={() => startDraft.set({ driver: null, known: false })}>Change it</Button>
        </p>
      ) : (
        <Woofer means={draft.means} sheet={draft.sheet} />
      )}
    </Step>
  );
  const wish = (
    <Step title="The wish" done={draft.brief !== null}>
      <Wish brief={brief} onChange={setBrief} />
    </Step>
  );
  return (
    <Shell title="A new box">
      <div className="mx-auto grid max-w-[1560px] grid-cols-1 gap-x-8 gap-y-6 px-6 py-5 lg:grid-cols-2">
        <div className="flex flex-col gap-6">
          <h1 className="text-2xl">A new box</h1>
          {from === 'wish' ? [wish, woofer] : [woofer, wish]}
        </div>
        <section aria-labelledby="the-box" className="lg:sticky lg:top-4 lg:self-start">
          <h2 id="the-box" className="mb-2 text-xl">
            The box
          </h2>
          <Message error={make.error} />
          {driver && brief ? (
            <Recommended
              driver={driver}
              brief={brief}
              busy={make.isPending}
              onBrief={setBrief}
              onMake={begin}
            />
          ) : (
            <p className="text-soft">
              {driver
                ? 'Say what it is for, and the box is worked out here.'
                : 'Give a woofer and say what it is for. Which kind of cabinet suits, and what the others would give, is worked out here, as it is built.'}
            </p>
          )}
          {!driver && draft.brief && (
            <p className="mt-3 text-soft">
              No woofer yet? <Find brief={draft.brief} /> searches the library for drivers and cabinets that
              reach the wish.
            </p>
          )}
          <p className="mt-6 text-[0.929rem] text-soft">
            What is said here stays until a box is made of it. <Link to="/">All builds</Link>
          </p>
        </section>
      </div>
    </Shell>
  );
}

/** Names it after what it is for and what drives it. */
function nameOf({ driver }: RawDesign, brief: RawBrief | null): string {
  const purpose = brief?.template ? brief.template.replaceAll('_', ' ') : 'box';
  return `${driver.name ?? 'Woofer'}, ${purpose}`.slice(0, 120);
}

function inShort(driver: RawDriver): string {
  const said = (['fs', 'qts', 'vas', 'sd', 'xmax'] as const).flatMap((name) =>
    driver[name] === undefined || driver[name] === null
      ? []
      : [`${name[0]?.toUpperCase()}${name.slice(1)} ${driver[name]}`],
  );
  return said.join(' · ');
}

function Woofer({ means, sheet }: { means: Means; sheet: string }) {
  const use = (driver: RawDriver, known: boolean) => startDraft.set({ driver, known });
  return (
    <div className="flex flex-col gap-2">
      <div>
        <Choice
          label="How the woofer is given"
          value={means}
          options={MEANS}
          onChange={(next) => startDraft.set({ means: next })}
        />
      </div>
      {means === 'paste' && (
        <Sheet
          text={sheet}
          onText={(text) => startDraft.set({ sheet: text })}
          onUse={(driver) => use(driver, false)}
        />
      )}
      {means === 'library' && (
        <div className="max-h-[28rem] overflow-auto">
          <DriverTable short action="Use" onAct={({ document }) => use(document, true)} />
        </div>
      )}
      {means === 'type' && (
        <DriverForm
          initial={emptyDriver()}
          submit="Use this woofer"
          busy={false}
          error={null}
          onSubmit={(driver) => use(driver, false)}
          onCancel={() => startDraft.set({ means: 'paste' })}
        />
      )}
    </div>
  );
}

/** Makes a build of the wish and searches the library for it. */
function Find({ brief }: { brief: RawBrief }) {
  const navigate = useNavigate();
  const make = useChange('builds', async (wished: RawBrief) => {
    const id = crypto.randomUUID();
    const body = { name: wished.template?.replaceAll('_', ' ') ?? 'A wish', notes: '' };
    await answered(api.PUT('/api/v1/builds/{id}', { params: { path: { id } }, body }));
    await writeDocument(id, 'brief', crypto.randomUUID(), 0, held(wished));
    return id;
  });
  return (
    <Button
      disabled={make.isPending}
      onClick={() => make.mutate(brief, { onSuccess: (id) => navigate(`/builds/${id}/find`) })}
    >
      Find drivers for it
    </Button>
  );
}

function Step({ title, done, children }: { title: string; done: boolean; children: ReactNode }) {
  const [id] = useState(() => title.toLowerCase().replaceAll(' ', '-'));
  return (
    <section aria-labelledby={id} key={id}>
      <h2 id={id} className="mb-2 flex items-baseline gap-2 text-xl">
        {title}
        {done && <span className="font-normal text-[0.929rem] text-met">done</span>}
      </h2>
      {children}
    </section>
  );
}
