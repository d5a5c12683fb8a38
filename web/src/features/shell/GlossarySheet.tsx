import { useState } from 'react';
import { lookUp } from '../../model/glossary';
import { Dialog } from '../../ui/Dialog';
import { Scroll } from '../../ui/Scroll';

/** Every term in one plain sentence. */
export function GlossarySheet({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState('');
  const found = lookUp(text);
  return (
    <Dialog title="Glossary" open onClose={onClose}>
      <input
        className="field mb-3"
        aria-label="Look up"
        placeholder="Qts, tuning, group delay …"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Scroll label="Terms" className="h-[56vh] overflow-y-auto">
        <dl>
          {found.map(({ term, meaning }) => (
            <div key={`${term} ${meaning}`} className="border-grid border-b py-1">
              <dt className="font-semibold">{term}</dt>
              <dd>{meaning}</dd>
            </div>
          ))}
        </dl>
        {found.length === 0 && <p className="text-soft">No term of that name.</p>}
      </Scroll>
    </Dialog>
  );
}
