import type { Variant } from '../../api/documents';
import { useArchived } from '../../api/queries/builds';
import { familyEntry } from '../../model/families';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';

interface Props {
  build: string;
  onBack: (variant: Variant) => void;
  onClose: () => void;
}

/** Archived variants, to be brought back. */
export function ArchivedDialog({ build, onBack, onClose }: Props) {
  const archived = useArchived(build);
  const variants = archived.data?.filter((one): one is Variant => one.kind === 'variant');
  return (
    <Dialog title="Archived variants" open onClose={onClose}>
      <Message error={archived.error} />
      {variants?.length === 0 && <p>Nothing is archived.</p>}
      <ul className="flex flex-col gap-1.5">
        {variants?.map((variant) => (
          <li
            key={variant.id}
            className="flex items-center justify-between gap-3 border-grid border-b pb-1.5"
          >
            <span className="min-w-0">
              <b className="block truncate">{variant.content.name}</b>
              <span className="text-soft">
                {familyEntry(variant.content.enclosure.family).name}, {variant.content.driver.name}
              </span>
            </span>
            <Button aria-label={`Bring back ${variant.content.name}`} onClick={() => onBack(variant)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
