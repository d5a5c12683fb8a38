import { useMutation } from '@tanstack/react-query';
import { answered, api } from '../../api/client';
import { useArchived } from '../../api/queries';
import type { Variant } from '../../api/types';
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
  const restore = useMutation({
    mutationFn: (id: string) =>
      answered(api.POST('/api/v1/variants/{id}/restore', { params: { path: { id } } })),
    onSuccess: onBack,
  });
  return (
    <Dialog title="Archived variants" open onClose={onClose}>
      <Message error={archived.error ?? restore.error} />
      {archived.data?.length === 0 && <p>Nothing is archived.</p>}
      <ul className="flex flex-col gap-1.5">
        {archived.data?.map((variant) => (
          <li
            key={variant.id}
            className="flex items-center justify-between gap-3 border-grid border-b pb-1.5"
          >
            <span className="min-w-0">
              <b className="block truncate">{variant.document.name}</b>
              <span className="text-soft">
                {familyEntry(variant.document.enclosure.family).name}, {variant.document.driver.name}
              </span>
            </span>
            <Button
              disabled={restore.isPending}
              aria-label={`Bring ${variant.document.name} back`}
              onClick={() => restore.mutate(variant.id)}
            >
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
