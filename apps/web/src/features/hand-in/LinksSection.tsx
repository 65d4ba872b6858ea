import { LinkRequest, type MyDraftView, type PartView, type Problem } from '@salt-circle/contracts';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import type { Deliverable } from '@salt-circle/core';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Button, TextArea, TextField } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { useAddLinkMutation, useChangeLinkMutation, useRemovePartMutation } from './handInApi.js';
import { SectionHead } from './SectionHead.js';

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
                  Change
                </Button>
                <Button
                  small
                  aria-label={`Remove ${link.title}`}
                  onClick={() => void remove({ exchangeId: exchange.id, partId: link.id })}
                >
                  Remove
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {editable &&
        (editing === null ? (
          <Button small className="mt-2" onClick={() => setEditing('new')}>
            Add a link
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
  const [problem, setProblem] = useState<Problem | null>(null);
  const { register, handleSubmit, formState } = useForm<LinkRequest>({
    resolver: classValidatorResolver(LinkRequest),
    defaultValues: { url: link?.url ?? 'https://', title: link?.title ?? '', about: link?.about ?? '' },
  });
  const { errors } = formState;
  const submit = handleSubmit(async ({ url, title, about }) => {
    const body = { url, title, about };
    const result =
      link === null
        ? await add({ exchangeId: exchange.id, deliverableId, link: body })
        : await change({ exchangeId: exchange.id, partId: link.id, link: body });
    if (result.error === undefined) onDone();
    else setProblem(result.error as Problem);
  });
  return (
    <form onSubmit={(event) => void submit(event)} noValidate className="mt-3 max-w-[68ch] space-y-3 bg-crust p-3">
      <TextField label="Address" problem={errors.url?.message} {...register('url')} />
      <TextField label="What it is" problem={errors.title?.message} {...register('title')} />
      <TextArea label="What to look at there" problem={errors.about?.message} {...register('about')} />
      {problem !== null && <ProblemNotice error={problem} />}
      <div className="flex gap-2">
        <Button look="primary" type="submit" busy={adding.isLoading || changing.isLoading}>
          {link === null ? 'Add the link' : 'Keep the change'}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </form>
  );
}
