import type { Answer, ReviewForm } from '@salt-circle/core';
import { useState } from 'react';
import { AnswerText, ItemInput } from './ItemInput.js';

export interface FormPreviewProps {
  readonly form: ReviewForm;
  /** To be tried: what is entered is kept nowhere. */
  readonly live?: boolean;
}

/** A form as reviewers will see it. */
export function FormPreview({ form, live = false }: FormPreviewProps) {
  const [answers, setAnswers] = useState<Readonly<Record<string, Answer | undefined>>>({});
  const change = (id: string) =>
    live ? (part: Answer) => setAnswers((all) => ({ ...all, [id]: { ...all[id], ...part } })) : undefined;
  return (
    <div className="space-y-6">
      {form.items.map((item) => (
        <section key={item.id} className="@container break-inside-avoid">
          <div className="flex items-baseline justify-between gap-3">
            <h3 className="font-semibold">{item.title === '' ? 'Untitled' : item.title}</h3>
            <span className="text-sm whitespace-nowrap text-ink-soft">
              {'minimumWords' in item && item.minimumWords > 0 && `at least ${item.minimumWords} words`}
              {'minimumWords' in item && item.minimumWords > 0 && !item.required && ', '}
              {!item.required && 'may be left out'}
            </span>
          </div>
          {item.guidance !== '' && <p className="mb-1.5 text-sm text-ink-soft">{item.guidance}</p>}
          <ItemInput item={item} answer={answers[item.id]} onChange={change(item.id)} />
        </section>
      ))}
      {form.overall !== 'none' && (
        <section>
          <h3 className="font-semibold">Overall comment</h3>
          {form.overall === 'optional' && <p className="text-sm text-ink-soft">May be left out.</p>}
          <AnswerText label="Overall comment" field="text" answer={answers['overall']} onChange={change('overall')} />
        </section>
      )}
      {(form.minimumNotes > 0 || form.targetNotes > 0) && (
        <p className="text-ink-soft">
          Notes on the draft: {form.minimumNotes > 0 ? `at least ${form.minimumNotes}` : 'as many as help'}
          {form.targetNotes > 0 && `, ${form.targetNotes} would be good`}.
        </p>
      )}
    </div>
  );
}
