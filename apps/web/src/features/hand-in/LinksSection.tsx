import type { MyDraftView, PartView } from '@salt-circle/contracts';
import type { Deliverable } from '@salt-circle/core';
import { useState, type ChangeEvent, type FormEvent } from 'react';
import { Button, TextArea, TextField } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { useExchange } from '../../app/useExchange.js';
import { useAddLinkMutation, useChangeLinkMutation, useRemovePartMutation } from './handInApi.js';
import { SectionHead } from './SectionHead.js';
import { say } from '../../words/hand-in.js';

export interface LinksSectionProps {
  readonly deliverable: Deliverable;
  readonly draft: MyDraftView;
  readonly number: number;
  readonly editable: boolean;
}

/** Links, each with a title and a word on what to look at. */
export function LinksSection({ deliverable, draft, number, editable }: LinksSectionProps) {
  const exchange = useExchange();
  const links = draft.parts.filter(({ deliverableId }) => deliverableId === deliverable.id);
  const [editing, setEditing] = useState<PartView | 'new' | null>(null);
  const [remove] = useRemovePartMutation();
  return (
    <section aria-label={deliverable.title} className="mb-6 border-t border-line pt-4">
      <SectionHead deliverable={deliverable} number={number} filled={links.length > 0} />
      <ul className="max-w-[68ch]">
        {links.map((link) => (
          <li key={link.id} className="flex flex-wrap items-start justify-between gap-3 border-b border-line py-2">
            <div className="min-w-0 flex-1">
              <a href={link.url} target="_blank" rel="noopener noreferrer" className="font-medium text-dusk underline">
                {link.title}
              </a>
              <p className="truncate text-sm text-ink-soft">{link.url}</p>
              {link.about !== '' && <p className="text-sm whitespace-pre-wrap">{link.about}</p>}
            </div>
            {editable && (
              <span className="flex gap-1">
                <Button small onClick={() => setEditing(link)}>
                  {say('change')}
                </Button>
                <Button
                  small
                  aria-label={say('removeOf', { title: link.title })}
                  onClick={() => void remove({ exchangeId: exchange.id, partId: link.id })}
                >
                  {say('removeLabel')}
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {editable &&
        (editing === null ? (
          <Button small className="mt-2" onClick={() => setEditing('new')}>
            {say('addLink')}
          </Button>
        ) : (
          <LinkForm
            key={editing === 'new' ? 'new' : editing.id}
            deliverableId={deliverable.id}
            link={editing === 'new' ? null : editing}
            onDone={() => setEditing(null)}
          />
        ))}
    </section>
  );
}

interface LinkFormProps {
  readonly deliverableId: string;
  readonly link: PartView | null;
  readonly onDone: () => void;
}

function LinkForm({ deliverableId, link, onDone }: LinkFormProps) {
  const exchange = useExchange();
  const [add, adding] = useAddLinkMutation();
  const [change, changing] = useChangeLinkMutation();
  const [body, setBody] = useState({
    url: link?.url ?? 'https://',
    title: link?.title ?? '',
    about: link?.about ?? '',
  });
  const error = adding.error ?? changing.error;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result =
      link === null
        ? await add({ exchangeId: exchange.id, deliverableId, link: body })
        : await change({ exchangeId: exchange.id, partId: link.id, link: body });
    if (result.error === undefined) onDone();
  };
  const field = (name: keyof typeof body) => ({
    value: body[name],
    problem: fieldProblem(error, name),
    onChange: ({ target }: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) =>
      setBody({ ...body, [name]: target.value }),
  });
  return (
    <form onSubmit={(event) => void submit(event)} noValidate className="mt-3 max-w-[68ch] space-y-3 bg-crust p-3">
      <TextField label={say('address')} {...field('url')} />
      <TextField label={say('whatItIs')} {...field('title')} />
      <TextArea label={say('whatToLookAtThere')} {...field('about')} />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      <div className="flex gap-2">
        <Button look="primary" type="submit" busy={adding.isLoading || changing.isLoading}>
          {link === null ? say('addLinkLabel') : say('keepChange')}
        </Button>
        <Button onClick={onDone}>{say('cancel')}</Button>
      </div>
    </form>
  );
}
