import type { Answer, ReviewForm } from '@salt-circle/core';
import { useState } from 'react';
import { AnswerText, ItemInput } from './ItemInput.js';
import { say } from '../../words/app.js';

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
            <h3 className="font-semibold">{item.title === '' ? say('untitled') : item.title}</h3>
            <span className="text-sm whitespace-nowrap text-ink-soft">
              {'minimumWords' in item &&
                item.minimumWords > 0 &&
                say('atLeastWords', { minimumWords: item.minimumWords })}
              {'minimumWords' in item && item.minimumWords > 0 && !item.required && ', '}
              {!item.required && say('mayBeLeftOut')}
            </span>
          </div>
          {item.guidance !== '' && <p className="mb-1.5 text-sm text-ink-soft">{item.guidance}</p>}
          <ItemInput item={item} answer={answers[item.id]} onChange={change(item.id)} />
        </section>
      ))}
      {form.overall !== 'none' && (
        <section>
          <h3 className="font-semibold">{say('overallComment')}</h3>
          {form.overall === 'optional' && <p className="text-sm text-ink-soft">{say('mayBeLeftOutLabel')}</p>}
          <AnswerText
            label={say('overallComment')}
            field="text"
            answer={answers['overall']}
            onChange={change('overall')}
          />
        </section>
      )}
      {(form.minimumNotes > 0 || form.targetNotes > 0) && (
        <p className="text-ink-soft">
          {form.minimumNotes > 0
            ? form.targetNotes > 0
              ? say('notesOnDraftAtLeast', { minimumNotes: form.minimumNotes, targetNotes: form.targetNotes })
              : say('notesOnDraftAtLeastOf', { minimumNotes: form.minimumNotes })
            : form.targetNotes > 0
              ? say('notesOnDraftAsMany', { targetNotes: form.targetNotes })
              : say('notesOnDraftAsManyAs')}
        </p>
      )}
    </div>
  );
}
