// What each field means: fetched once the page is drawn, because nothing needs it to draw.

import { Observable } from './observable';
import { type Field, generic } from './units';

type Meanings = Readonly<Record<string, string>>;

class KnownMeanings extends Observable<{ fields: Meanings }> {
  async load(): Promise<void> {
    const { default: tables } = await import('./meanings.json');
    this.update({ fields: tables.fields });
  }
}

export const meanings = new KnownMeanings({ fields: {} });

/** What a field means; nothing until that is known. */
export const meaningIn = ({ fields }: { fields: Meanings }, field: Field | null | undefined) =>
  field ? fields[generic(field.path)] : undefined;
