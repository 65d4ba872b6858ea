import type { AnswerView } from '@salt-circle/contracts';
import { type Answer, type Completeness, type FormItem, type Missing } from '@salt-circle/core';
import { Levels, TextArea } from '../../kit/index.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSavingState } from '../../app/saving/useSaving.js';
import { itemState } from './itemState.js';
import type { AnswersState } from './useAnswers.js';

export interface FormPanelProps {
  readonly items: readonly FormItem[];
  readonly answers: AnswersState['answers'];
  readonly state: Completeness;
  readonly editable: boolean;
  readonly savePrefix: string;
  readonly onChange: AnswersState['change'];
  readonly onReplace: AnswersState['replace'];
}

/** The id of an item's heading, to jump to. */
export function itemAnchor(itemId: string): string {
  return `item-${itemId}`;
}

export function FormPanel({ items, answers, state, editable, savePrefix, onChange, onReplace }: FormPanelProps) {
  return (
    <ol className="space-y-6 py-3 pb-8">
      {items.map((item) => (
        <ItemField
          key={item.id}
          item={item}
          answer={answers[item.id]}
          missing={state.missing.filter(({ itemId }) => itemId === item.id)}
          saveKey={savePrefix + item.id}
          editable={editable}
          onChange={(part) => onChange(item.id, part)}
          onReplace={(theirs) => onReplace(item.id, theirs)}
        />
      ))}
    </ol>
  );
}

interface ItemFieldProps {
  readonly item: FormItem;
  readonly answer: Answer | undefined;
  readonly missing: readonly Missing[];
  readonly saveKey: string;
  readonly editable: boolean;
  readonly onChange: (part: Answer) => void;
  readonly onReplace: (theirs: AnswerView | null) => void;
}

function ItemField({ item, answer, missing, saveKey, editable, onChange, onReplace }: ItemFieldProps) {
  const saving = useSavingState(saveKey);
  const theirs = saving.problem?.current as AnswerView | null | undefined;
  const [remark, colour] = itemState(item, answer, missing);
  const asksText = item.kind === 'prompt' || item.comment !== 'none';
  return (
    <li className="@container scroll-mt-4" id={itemAnchor(item.id)}>
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="font-semibold">{item.title}</h3>
        <span className={`text-sm whitespace-nowrap ${colour}`}>{remark}</span>
      </div>
      {item.guidance !== '' && <p className="mb-1.5 text-sm text-ink-soft">{item.guidance}</p>}
      {item.kind === 'criterion' && (
        <div className="mb-2">
          <Levels
            label={item.title}
            levels={item.levels}
            value={answer?.levelId ?? null}
            {...(editable && { onChange: (levelId: string) => onChange({ levelId }) })}
          />
        </div>
      )}
      {asksText &&
        (editable || (answer?.text ?? '') === '' ? (
          <TextArea
            label={item.kind === 'prompt' ? item.title : `${item.title}: why`}
            labelHidden
            placeholder={
              item.kind === 'criterion' ? (item.comment === 'required' ? 'Say why' : 'Say why, if you like') : ''
            }
            value={answer?.text ?? ''}
            maxLength={20_000}
            readOnly={!editable}
            onChange={(event) => onChange({ text: event.target.value })}
          />
        ) : (
          <p className="whitespace-pre-wrap">{answer?.text}</p>
        ))}
      {saving.state === 'refused' && saving.problem !== null && (
        <p className="text-sm text-madder" role="alert">
          {saving.problem.sentence}
        </p>
      )}
      {saving.state === 'conflict' && saving.problem !== null && (
        <Conflict
          saveKey={saveKey}
          problem={saving.problem}
          revision={theirs?.revision ?? 0}
          theirs={<AnswerText item={item} answer={theirs ?? undefined} />}
          onTake={() => onReplace(theirs ?? null)}
        />
      )}
    </li>
  );
}

function AnswerText({ item, answer }: { readonly item: FormItem; readonly answer: Answer | undefined }) {
  const level = item.kind === 'criterion' ? item.levels.find(({ id }) => id === answer?.levelId) : undefined;
  return (
    <p className="whitespace-pre-wrap">
      {level !== undefined && <strong>{level.title}. </strong>}
      {answer?.text ?? ''}
    </p>
  );
}
