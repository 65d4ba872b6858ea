import type { PersonLabel, PracticeResultView } from '@salt-circle/contracts';
import { comparePlaces, OVERALL_ID, type FormItem, type ItemCloseness } from '@salt-circle/core';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { AnswerWords } from '../../app/form/AnswerWords.js';
import { Page } from '../../app/frame/Page.js';
import { percent } from '../../app/percent.js';
import { usePracticeResultQuery } from '../../app/practice/practiceApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { ReadDraft, useReadNotes, type ReadNote } from '../../app/reading/ReadDraft.js';
import { buttonClass, Loading, Tabs } from '../../kit/index.js';
import { itemWords, resultWords, triesWords } from './practiceWords.js';
import { say } from '../../words/practice.js';

/** A try of a practice draft beside its key, item by item and note by note. */
export function PracticeResultPage() {
  const { practiceId = '' } = useParams();
  const { data, error } = usePracticeResultQuery(practiceId, { refetchOnMountOrArgChange: true });
  if (data === undefined) {
    return (
      <Page title={say('practiceLabel')}>
        {error === undefined ? <Loading what={say('theKey')} /> : <ProblemNotice error={error} />}
      </Page>
    );
  }
  const { exchange } = data;
  return (
    <Page
      crumbs={[
        { words: exchange.courseTitle, to: `/courses/${exchange.courseId}` },
        { words: exchange.title, to: `/exchanges/${exchange.id}` },
        { words: say('practiceLabel'), to: `/exchanges/${exchange.id}/practice` },
      ]}
      title={data.title}
    >
      <Result result={data} />
    </Page>
  );
}

const YOU: PersonLabel = { you: true, alias: '' };

function Result({ result }: { readonly result: PracticeResultView }) {
  const { draft, yours, key } = result;
  const notes = useMemo((): readonly ReadNote[] => {
    const byPlace = comparePlaces(draft.parts.map(({ id }) => id));
    return [
      ...yours.notes.map((note) => ({ ...note, by: YOU })),
      ...key.notes.map((note) => ({ ...note, by: { name: say('theKey') } })),
    ].sort((a, b) => byPlace(a.place, b.place) || (a.id < b.id ? -1 : 1));
  }, [draft.parts, yours.notes, key.notes]);
  const reading = useReadNotes(draft, notes);
  const [tab, setTab] = useState('items');
  return (
    <div className="grid flex-1 grid-cols-1 grid-rows-[auto_auto_1fr] lg:grid-cols-[3fr_2fr] lg:grid-rows-[auto_1fr]">
      <div className="border-line bg-crust px-5 pt-4 pb-1 max-lg:border-b lg:col-start-2 lg:border-l">
        <Summary result={result} />
      </div>
      <div className="grid min-w-0 lg:col-start-1 lg:row-span-2 lg:row-start-1">
        <ReadDraft
          draft={draft}
          exchangeId={result.id}
          notes={notes}
          reading={reading}
          label={say('practiceDraftWithBothSets')}
          marginLabel={say('notesOfBoth')}
        />
      </div>
      <section className="border-line bg-crust px-5 pb-4 lg:border-l">
        <Tabs
          label={say('yourReviewAndKey')}
          value={tab}
          onChange={setTab}
          tabs={[
            { key: 'items', words: say('itemByItem'), content: <Items result={result} /> },
            {
              key: 'notes',
              words: say('notesOfYoursInKey', { notes: yours.notes.length, notes2: key.notes.length }),
              content: (
                <ul className="space-y-3 py-3">
                  {notes.map((note) => (
                    <li key={note.id}>{reading.show(note, true)}</li>
                  ))}
                </ul>
              ),
            },
          ]}
        />
      </section>
    </div>
  );
}

function Summary({ result }: { readonly result: PracticeResultView }) {
  const { closeness, rule, own, exchange } = result;
  const short = own.state === 'again' && rule.closeEnough !== null;
  return (
    <div className="mb-3 space-y-1">
      <p className="text-lg font-semibold">{resultWords(closeness)}</p>
      {short && rule.closeEnough !== null && (
        <p className="text-copper">{say('areAskedForLookAt', { closeEnough: percent(rule.closeEnough) })}</p>
      )}
      {closeness.kappa !== null && (
        <p className="text-sm text-ink-soft">{say('weightedKappa1IsFull', { kappa: closeness.kappa.toFixed(2) })}</p>
      )}
      <p className="text-sm text-ink-soft">
        {say('nearIsAtMostOne', { triesWords: triesWords(rule, own.shares.length) })}
      </p>
      <p className="pt-1">
        <Link to={`/exchanges/${exchange.id}/practice`} className={buttonClass(short ? 'primary' : 'plain')}>
          {own.again ? say('backToPracticeToTry') : say('backToPractice')}
        </Link>
      </p>
    </div>
  );
}

function Items({ result }: { readonly result: PracticeResultView }) {
  const { form, closeness } = result;
  const questions: Array<readonly [id: string, title: string, item: FormItem | undefined]> = form.items.map((item) => [
    item.id,
    item.title,
    item,
  ]);
  if (form.overall !== 'none') questions.push([OVERALL_ID, say('overallComment'), undefined]);
  return (
    <div className="divide-y divide-line">
      {questions.map(([id, title, item]) => (
        <section key={id} className="py-4">
          <h3 className="flex flex-wrap items-baseline justify-between gap-x-3 text-lg font-semibold">
            {title}
            <Closeness of={closeness.items.find(({ itemId }) => itemId === id)} />
          </h3>
          <dl className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2">
            <Side words={say('you')}>
              <AnswerWords item={item} answer={result.yours.answers[id]} />
            </Side>
            <Side words={say('keyLabel')}>
              <AnswerWords item={item} answer={result.key.answers[id]} />
            </Side>
          </dl>
        </section>
      ))}
    </div>
  );
}

function Closeness({ of }: { readonly of: ItemCloseness | undefined }) {
  if (of === undefined) return null;
  return (
    <span className={`text-base font-normal ${of.near ? 'text-kelp' : 'text-copper'}`}>
      {of.near ? itemWords(of) : say('notNear', { words: itemWords(of) })}
    </span>
  );
}

function Side({ words, children }: { readonly words: string; readonly children: ReactNode }) {
  return (
    <div className="@container">
      <dt className="text-sm font-medium text-ink-soft">{words}</dt>
      <dd>{children}</dd>
    </div>
  );
}
