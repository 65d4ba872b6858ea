import { useEffect, useState } from 'react';
import { Button, Notice } from '../../kit/index.js';
import { browser } from '../store.js';
import type { Left } from './browserStore.js';
import { wordsIn } from './wordsIn.js';
import { say } from '../../words/app.js';

/** Text that a closed tab kept and nobody sent, where newer text stands in its place: to be copied or let go. Nothing for none. */
export function LeftBehind({ personId }: { readonly personId: string }) {
  const [left, setLeft] = useState<readonly Left[]>([]);
  useEffect(() => {
    let over = false;
    void browser.left(personId).then((found) => {
      if (!over) setLeft(found.filter(({ save }) => wordsIn(save.body).length > 0));
    });
    return () => {
      over = true;
    };
  }, [personId]);
  if (left.length === 0) return null;
  const letGo = (id: string) => {
    void browser.forget(id);
    setLeft((all) => all.filter((one) => one.id !== id));
  };
  return (
    <div className="no-print px-5 pt-3">
      <Notice tone="waiting" title={say('tabThatWasClosedKept')}>
        <p>{say('newerTextStandsInIts')}</p>
        <ul>
          {left.map(({ id, save }) => {
            const words = wordsIn(save.body).join('\n');
            return (
              <li key={id} className="mt-2 flex items-start gap-3">
                <span className="min-w-0 flex-1 break-words whitespace-pre-wrap">{words}</span>
                <Button small onClick={() => void navigator.clipboard.writeText(words)}>
                  {say('copy')}
                </Button>
                <Button small onClick={() => letGo(id)}>
                  {say('letItGo')}
                </Button>
              </li>
            );
          })}
        </ul>
      </Notice>
    </div>
  );
}
