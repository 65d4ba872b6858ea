import type { DeskView, PartView } from '@salt-circle/contracts';
import { completeness, formScore } from '@salt-circle/core';
import { useCallback, useRef, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { Dialog, Loading, Prose, Split, Tabs, Button, Notice } from '../../kit/index.js';
import { Page } from '../../app/frame/Page.js';
import { deskShareChanged, selectDeskShare } from '../../app/layoutSlice.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DraftText, type DraftLayout } from '../../app/reading/DraftText.js';
import { ReadingParts } from '../../app/viewing/ReadingParts.js';
import { MarginNotes } from '../../app/reading/MarginNotes.js';
import { NoteStrip } from '../../app/reading/NoteStrip.js';
import { useMe } from '../../app/session/useMe.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { useDeskQuery } from './deskApi.js';
import { DeskBar } from './DeskBar.js';
import { DeskHelp } from './DeskHelp.js';
import { FormPanel } from './FormPanel.js';
import { NoteCard } from './NoteCard.js';
import { useFresh } from '../../app/useFresh.js';
import { useNarrow } from '../../app/useNarrow.js';
import { useAnswers } from './useAnswers.js';
import { useNotes } from './useNotes.js';

/** Draft and review form side by side; everything is saved as it is typed. */
export function DeskPage() {
  const { reviewId = '' } = useParams();
  return <DeskLoader key={reviewId} reviewId={reviewId} />;
}

function DeskLoader({ reviewId }: { readonly reviewId: string }) {
  const query = useDeskQuery(reviewId, { refetchOnMountOrArgChange: true });
  const desk = useFresh(query);
  if (desk === undefined) {
    return (
      <Page title="Review">
        {query.error === undefined ? <Loading what="the review" /> : <ProblemNotice error={query.error} />}
      </Page>
    );
  }
  return <Desk key={desk.submittedAt ?? ''} desk={desk} />;
}

function Desk({ desk }: { readonly desk: DeskView }) {
  const me = useMe();
  const dispatch = useAppDispatch();
  const share = useAppSelector(selectDeskShare);
  const prefix = `${me.id}:review:${desk.id}:`;
  const notes = useNotes(desk.notes, desk.id, `${prefix}note:`);
  const { answers, change, replace } = useAnswers(desk.form, desk.answers, desk.id, `${prefix}answer:`);
  const [layout, setLayout] = useState<DraftLayout | null>(null);
  const [activeId, setActiveId] = useState<string | null>(null);
  const [tab, setTab] = useState('form');
  const [reading, setReading] = useState<'guide' | 'brief' | null>(null);
  const onLayout = useCallback((next: DraftLayout) => setLayout(next), []);
  const { form } = desk;
  const state = completeness(form, answers, notes.list.length);
  const score = formScore(form, answers);
  const { exchange, editable } = desk;
  const own = desk.reviewer.you === true;
  const narrow = useNarrow();
  const [side, setSide] = useState('draft');
  const margin = useRef<HTMLElement>(null);
  // Where the draft has no room for a margin, notes are in the list only: a chosen one is brought into view there.
  const choose = (id: string) => {
    setActiveId(id);
    if (margin.current !== null && margin.current.offsetParent !== null) return;
    setTab('notes');
    setSide('form');
  };

  const card = (id: string, quoted: boolean) => {
    const note = notes.list.find((one) => one.id === id);
    if (note === undefined) return null;
    return (
      <NoteCard
        note={note}
        saveKey={`${prefix}note:${id}`}
        match={layout?.matches.get(id)}
        active={id === activeId}
        editable={editable}
        shorthand={desk.shorthand}
        quoted={quoted}
        onActivate={() => setActiveId(id)}
        onClose={() => setActiveId(null)}
        onChange={(part) => notes.change(id, part)}
        onRemove={() => notes.remove(id)}
        onReplace={(theirs) => notes.replace(id, theirs)}
      />
    );
  };

  const text = (html: string, part: PartView) =>
    part.id !== desk.draft.htmlPartId ? null : (
      <div className="@2xl:grid @2xl:grid-cols-[minmax(0,1fr)_12.5rem] @2xl:gap-6">
        <DraftText
          html={html}
          passages={notes.list}
          activeId={activeId}
          onActivate={choose}
          onLayout={onLayout}
          {...(editable && { onNote: (kind, anchor) => choose(notes.add(kind, anchor)) })}
        />
        <aside ref={margin} aria-label="Notes beside the draft" className="hidden @2xl:block">
          <MarginNotes
            ids={notes.list.map(({ id }) => id)}
            layout={layout}
            activeId={activeId}
            render={(id) => card(id, false)}
          />
        </aside>
      </div>
    );

  const draft = (
    <div className="@container h-full overflow-y-auto px-6 py-5" data-scroll="draft">
      <h2 className="mb-4 font-serif text-2xl font-semibold">{desk.draft.title}</h2>
      <ReadingParts reading={desk.draft} exchangeId={exchange.id} renderText={text} tall />
    </div>
  );

  const panel = (
    <div className="h-full min-h-0 px-5 pt-1">
      <Tabs
        fill
        label="Review"
        value={tab}
        onChange={setTab}
        aside={
          score !== null && (
            <span className="text-sm text-ink-soft">
              {form.weighting === 'weights'
                ? `${Math.round(score.percent)} percent so far`
                : `${score.points} of ${score.of} points so far`}
            </span>
          )
        }
        tabs={[
          {
            key: 'form',
            words: 'Form',
            content: (
              <FormPanel
                form={form}
                notes={notes.list.length}
                answers={answers}
                state={state}
                editable={editable}
                savePrefix={`${prefix}answer:`}
                onChange={change}
                onReplace={replace}
              />
            ),
          },
          {
            key: 'notes',
            words: `Notes ${notes.list.length}`,
            content: (
              <div className="space-y-3 py-3">
                {notes.list.length === 0 && (
                  <p className="text-ink-soft">
                    {editable
                      ? 'Select a passage in the draft to leave a note: Keep, Change, Ask or Fix.'
                      : 'No notes on this draft.'}
                  </p>
                )}
                {notes.list.map(({ id }) => (
                  <div key={id}>{card(id, true)}</div>
                ))}
              </div>
            ),
          },
        ]}
      />
    </div>
  );

  return (
    <Page
      fill
      crumbs={[
        { words: exchange.courseTitle, to: `/courses/${exchange.courseId}` },
        { words: exchange.title, to: `/exchanges/${exchange.id}` },
      ]}
      title={
        own
          ? `Review ${desk.position} of ${desk.total}: draft by ${labelWords(desk.author)}`
          : `${labelWords(desk.reviewer)} on ${labelWords(desk.author)}`
      }
      aside={
        <>
          {exchange.guideHtml !== '' && (
            <Button look="quiet" small onClick={() => setReading('guide')}>
              Guide
            </Button>
          )}
          <Button look="quiet" small onClick={() => setReading('brief')}>
            Brief
          </Button>
          <DeskHelp />
        </>
      }
    >
      {!editable && own && desk.submittedAt === null && (
        <Notice tone="waiting" title="Reviews are over: this one was not submitted.">
          What you wrote is kept and can be read here.
        </Notice>
      )}
      {editable && !desk.submittable && (
        <Notice tone="waiting" title="Reviews have fallen due, so this one can no longer be submitted.">
          What you still write is saved, but it does not count.
        </Notice>
      )}
      <div className="min-h-0 flex-1">
        {narrow ? (
          <OneSide side={side} onSide={setSide} draft={draft} panel={panel} />
        ) : (
          <Split
            label="Between draft and form"
            share={share}
            onShare={(next) => dispatch(deskShareChanged(next))}
            left={draft}
            right={panel}
            strip={<NoteStrip notes={notes.list} layout={layout} />}
          />
        )}
      </div>
      {notes.removed !== null && (
        <p className="border-t border-line px-5 py-2" role="status">
          Note removed.{' '}
          <button type="button" onClick={notes.bringBack} className="text-dusk underline">
            Bring it back
          </button>
        </p>
      )}
      <DeskBar desk={desk} state={state} savePrefix={prefix} onJump={() => setTab('form')} />
      <Dialog
        open={reading !== null}
        onClose={() => setReading(null)}
        title={reading === 'guide' ? 'How to review' : 'What authors were asked'}
        wide
      >
        <Prose html={reading === 'guide' ? exchange.guideHtml : exchange.briefHtml} />
      </Dialog>
    </Page>
  );
}

interface OneSideProps {
  readonly side: string;
  readonly onSide: (side: string) => void;
  readonly draft: ReactNode;
  readonly panel: ReactNode;
}

/** On a telephone: draft or form, by a switch. */
function OneSide({ side, onSide, draft, panel }: OneSideProps) {
  return (
    <div className="h-full px-2">
      <Tabs
        fill
        label="Draft or form"
        value={side}
        onChange={onSide}
        tabs={[
          { key: 'draft', words: 'Draft', content: draft },
          { key: 'form', words: 'Form and notes', content: panel },
        ]}
      />
    </div>
  );
}
