import { useState } from 'react';
import { answered, api } from '../../api/client';
import { useChange } from '../../api/queries/shared';
import { firstDesign } from '../../model/design';
import type { Driver, RawDesign, RawDriver } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Icon } from '../../ui/Icon';
import { DriverForm } from '../drivers/DriverForm';
import { DriverTable } from '../drivers/DriverTable';
import { emptyDriver } from '../drivers/empty';

interface Props {
  /** The design whose driver is chosen; null for a new one. */
  design: RawDesign | null;
  onClose: () => void;
  onChosen: (design: RawDesign) => void;
}

type Page = 'library' | 'new' | 'values';

/** Chooses a driver from the library, types in a new one, or changes its values in this variant alone. */
export function DriverDialog({ design, onClose, onChosen }: Props) {
  const [page, setPage] = useState<Page>('library');
  const [touched, setTouched] = useState(false);
  const add = useChange('drivers', (driver: RawDriver) =>
    answered(api.POST('/api/v1/drivers', { body: driver })),
  );

  function close() {
    setPage('library');
    add.reset();
    onClose();
  }

  function choose(driver: RawDriver) {
    setPage('library');
    onChosen(design ? { ...design, driver } : firstDesign(driver));
  }

  const pick = (driver: Driver) => choose(driver.document);
  return (
    <Dialog title={TITLES[page]} open onClose={close} changed={page !== 'library' && touched} wide>
      {page === 'library' && (
        <div className="flex flex-col gap-3">
          <div className="flex flex-wrap gap-2">
            <Button look="strong" onClick={() => setPage('new')}>
              <Icon name="plus" /> Type in a driver
            </Button>
            {design && (
              <Button onClick={() => setPage('values')}>
                Change the values of {design.driver.name || 'the driver'} here
              </Button>
            )}
          </div>
          <DriverTable action="Use" onAct={pick} />
        </div>
      )}
      {page === 'new' && (
        <DriverForm
          initial={emptyDriver()}
          submit="Add to the library and use"
          busy={add.isPending}
          error={add.error}
          onSubmit={(driver) => add.mutate(driver, { onSuccess: pick })}
          onCancel={() => setPage('library')}
          onTouched={setTouched}
        />
      )}
      {page === 'values' && design && (
        <DriverForm
          initial={design.driver}
          submit="Use in this variant"
          busy={false}
          error={null}
          onSubmit={choose}
          onCancel={() => setPage('library')}
          onTouched={setTouched}
        />
      )}
    </Dialog>
  );
}

const TITLES: Record<Page, string> = {
  library: 'Choose a driver',
  new: 'Type in a driver',
  values: 'The driver of this variant',
};
