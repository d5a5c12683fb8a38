import { useState } from 'react';
import { askPages } from '../../api/queries/plan';
import { printedNow } from '../../model/workshop';
import { Button } from '../../ui/Button';
import { save } from '../../ui/download';
import { Message } from '../../ui/Message';
import type { SheetProps } from './sheet';

/** Sheets that are pages of the book too. */
const PAGES: Record<string, string> = {
  parts: 'parts',
  panels: 'panels',
  sheets: 'sheets',
  holes: 'holes',
  steps: 'steps',
  calendar: 'calendar',
};

/** What leaves as pages: the whole book, the templates, or the sheet that is shown. What was printed is remembered, so that it can be marked when it is old. */
export function PrintMenu({
  plan,
  question,
  workbench,
  variant,
  shown,
}: Pick<SheetProps, 'plan' | 'question' | 'workbench' | 'variant'> & { shown: string }) {
  const [busy, setBusy] = useState<string | null>(null);
  const [failure, setFailure] = useState<unknown>(null);
  const print = async (pages: string, name: string) => {
    setBusy(pages);
    setFailure(null);
    try {
      save(`${variant.design.name}, ${name}.pdf`, await askPages(question, pages));
      printedNow(workbench, name, plan.says, new Date());
    } catch (error) {
      setFailure(error);
    } finally {
      setBusy(null);
    }
  };
  const page = PAGES[shown];
  return (
    <div className="ml-auto flex flex-wrap items-center gap-1.5">
      <Message error={failure} />
      {page && (
        <Button disabled={busy !== null} onClick={() => void print(page, page)}>
          This sheet (PDF)
        </Button>
      )}
      <Button disabled={busy !== null} onClick={() => void print('templates', 'templates')}>
        Templates 1:1 (PDF)
      </Button>
      <Button look="strong" disabled={busy !== null} onClick={() => void print('book', 'build book')}>
        {busy === 'book' ? 'Making the book…' : 'Build book (PDF)'}
      </Button>
    </div>
  );
}
