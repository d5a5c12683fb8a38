import { useState } from 'react';
import { answered, api, ifMatch, Refusal } from '../../api/client';
import { useChange, useDrivers } from '../../api/queries';
import type { Driver, ImportReport, RawDriver } from '../../api/types';
import { Button, Download } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { chooseFile } from '../../ui/file';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { Shell } from '../shell/Shell';
import { DriverForm } from './DriverForm';
import { DriverTable } from './DriverTable';
import { emptyDriver } from './empty';
import { ImportResult } from './ImportResult';

/** The library of drivers. */
export function DriversPage() {
  const drivers = useDrivers();
  const [editing, setEditing] = useState<Driver | 'new' | null>(null);
  const [archived, setArchived] = useState<Driver | null>(null);
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
  const importTable = useChange('drivers', (file: File) =>
    answered<ImportReport>(
      api.POST('/api/v1/drivers/import', {
        body: file as unknown as string,
        bodySerializer: (body) => body,
        headers: { 'Content-Type': 'text/csv' },
      }),
    ),
  );

  function close() {
    keep.reset();
    setEditing(null);
  }

  const refused = importTable.error instanceof Refusal ? importTable.error.report : null;
  return (
    <Shell title="Drivers">
      <div className="mx-auto max-w-[1180px] px-6 py-5">
        <div className="mb-3 flex items-center gap-2">
          <h1 className="flex-1 text-2xl">Drivers</h1>
          <Button look="strong" onClick={() => setEditing('new')}>
            <Icon name="plus" /> Type in a driver
          </Button>
          <Button
            disabled={importTable.isPending}
            onClick={() => void chooseFile('.csv,text/csv').then((file) => file && importTable.mutate(file))}
          >
            <Icon name="into" /> Import CSV
          </Button>
          <Download href="/api/v1/drivers/export.csv">
            <Icon name="out" /> Export CSV
          </Download>
        </div>
        <div className="mb-3 flex flex-col gap-2" aria-live="polite">
          <Message
            error={drivers.error ?? archive.error ?? restore.error ?? (refused ? null : importTable.error)}
          />
          {(importTable.data || refused) && (
            <ImportResult
              report={(importTable.data ?? refused) as ImportReport}
              onClose={() => importTable.reset()}
            />
          )}
          {archived && (
            <p className="flex items-center gap-2">
              {archived.document.name} is archived.
              <Button onClick={() => restore.mutate(archived, { onSuccess: () => setArchived(null) })}>
                Bring it back
              </Button>
            </p>
          )}
        </div>
        {drivers.isPending ? (
          <p className="text-soft">Opening the library …</p>
        ) : (
          <DriverTable drivers={drivers.data ?? []} action="Open" onAct={setEditing} />
        )}
      </div>
      <Dialog
        title={editing === 'new' ? 'Type in a driver' : (editing?.document.name ?? '')}
        open={editing !== null}
        onClose={close}
        wide
      >
        {editing && (
          <>
            <DriverForm
              initial={editing === 'new' ? emptyDriver() : editing.document}
              submit={editing === 'new' ? 'Add to the library' : 'Keep the changes'}
              busy={keep.isPending}
              error={keep.error}
              onSubmit={(driver) => keep.mutate(driver, { onSuccess: close })}
              onCancel={close}
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
                        setArchived(editing);
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
    </Shell>
  );
}
