import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { answered, api, ifMatch } from '../../api/client';
import { useChange } from '../../api/queries/shared';
import { toasts } from '../../model/toasts';
import type { Driver, ImportReport, RawDriver, WantedDrivers } from '../../schema/types';
import { useInAddress } from '../../ui/address';
import { Button, Download } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { chooseFile } from '../../ui/file';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { Shell } from '../shell/Shell';
import { DriverForm } from './DriverForm';
import { DriverTable } from './DriverTable';
import { emptyDriver } from './empty';
import { ImportDialog } from './ImportDialog';
import { wantedIn, withWanted } from './wanted';

/** Most drivers that are compared at once. */
const MOST_COMPARED = 6;

/** The library of drivers. */
export function DriversPage() {
  const [editing, setEditing] = useState<Driver | 'new' | null>(null);
  const [touched, setTouched] = useState(false);
  const [file, setFile] = useState<File | null>(null);
  const [imported, setImported] = useState<ImportReport | null>(null);
  const [shelf, setShelf] = useInAddress('show', ['library', 'archive']);
  const [params, setParams] = useSearchParams();
  const sought = useMemo(() => wantedIn(params), [params]);
  const seek = (next: WantedDrivers) => setParams((now) => withWanted(now, next), { replace: true });
  const keep = useChange('drivers', (driver: RawDriver) => {
    if (editing === 'new' || !editing) return answered(api.POST('/api/v1/drivers', { body: driver }));
    const params = { path: { id: editing.id }, header: ifMatch(editing.revision) };
    return answered(api.PUT('/api/v1/drivers/{id}', { params, body: driver }));
  });
  const archive = useChange('drivers', (driver: Driver) => {
    const params = { path: { id: driver.id }, header: ifMatch(driver.revision) };
    return answered(api.DELETE('/api/v1/drivers/{id}', { params }));
  });
  const restore = useChange('drivers', (driver: Driver) =>
    answered(api.POST('/api/v1/drivers/{id}/restore', { params: { path: { id: driver.id } } })),
  );
  const navigate = useNavigate();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const mark = ({ id }: Driver, chosen: boolean) =>
    setMarked((before) => new Set(chosen ? [...before, id] : [...before].filter((other) => other !== id)));
  const comparable = marked.size >= 2 && marked.size <= MOST_COMPARED;

  function close() {
    keep.reset();
    setEditing(null);
  }

  return (
    <Shell title="Drivers">
      <div className="mx-auto max-w-[1180px] px-6 py-5">
        <div className="mb-3 flex flex-wrap items-center gap-2">
          <h1 className="flex-1 text-2xl">Drivers</h1>
          <Button look="strong" onClick={() => setEditing('new')}>
            <Icon name="plus" /> Type in a driver
          </Button>
          <Button onClick={() => void chooseFile('.csv,.json,.txt').then((file) => file && setFile(file))}>
            <Icon name="into" /> Import
          </Button>
          <Download href="/api/v1/drivers/export.csv">
            <Icon name="out" /> CSV
          </Download>
          <Download href="/api/v1/drivers/export.json">
            <Icon name="out" /> JSON
          </Download>
        </div>
        <div className="mb-3 flex flex-col gap-2" aria-live="polite">
          <Message error={archive.error ?? restore.error} />
          {imported && (
            <p className="flex items-center gap-2">
              {imported.imported} {imported.imported === 1 ? 'driver was' : 'drivers were'} imported.
              <Button onClick={() => setImported(null)}>Close</Button>
            </p>
          )}
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <Choice
            label="Which drivers"
            value={shelf}
            options={[
              ['library', 'Library'],
              ['archive', 'Archive'],
            ]}
            onChange={setShelf}
          />
          {shelf === 'library' && (
            <>
              <Button
                look={comparable ? 'strong' : 'plain'}
                disabled={!comparable}
                onClick={() => navigate(`/drivers/compare?of=${[...marked].join(',')}`)}
              >
                Compare {marked.size > 0 ? marked.size : ''}
              </Button>
              <p className="text-soft">
                {marked.size > MOST_COMPARED
                  ? `At most ${MOST_COMPARED} can be compared at once.`
                  : marked.size < 2 && 'Mark two to six drivers to compare them with all else equal.'}
              </p>
            </>
          )}
        </div>
        <div className="mt-3">
          {shelf === 'library' ? (
            <DriverTable
              key="library"
              action="Open"
              onAct={setEditing}
              chosen={marked}
              onChoose={mark}
              sought={sought}
              onSeek={seek}
            />
          ) : (
            <DriverTable
              key="archive"
              action="Bring back"
              archived
              sought={sought}
              onSeek={seek}
              onAct={(driver) => restore.mutate(driver)}
            />
          )}
        </div>
      </div>
      <Dialog
        title={editing === 'new' ? 'Type in a driver' : (editing?.document.name ?? '')}
        open={editing !== null}
        onClose={close}
        changed={touched}
        wide
      >
        {editing && (
          <>
            <DriverForm
              initial={editing === 'new' ? emptyDriver() : editing.document}
              submit={editing === 'new' ? 'Add to the library' : 'Save changes'}
              busy={keep.isPending}
              error={keep.error}
              onSubmit={(driver) => keep.mutate(driver, { onSuccess: close })}
              onCancel={close}
              onTouched={setTouched}
            />
            {editing !== 'new' && (
              <div className="mt-3 flex gap-2 border-line border-t pt-3">
                <Download href={`/api/v1/drivers/${editing.id}/driver.json`}>
                  <Icon name="out" /> Driver file (JSON)
                </Download>
                <Button
                  onClick={() =>
                    archive.mutate(editing, {
                      onSuccess: () => {
                        toasts.say(`${editing.document.name} is archived.`, () => restore.mutate(editing));
                        close();
                      },
                    })
                  }
                >
                  <Icon name="box" /> Archive
                </Button>
                <p className="flex-1 text-right text-soft">
                  Variants keep the values they were made with; a change here is for the next ones.
                </p>
              </div>
            )}
          </>
        )}
      </Dialog>
      <ImportDialog
        file={file}
        onClose={() => setFile(null)}
        onImported={(report) => {
          setFile(null);
          setImported(report);
        }}
      />
    </Shell>
  );
}
