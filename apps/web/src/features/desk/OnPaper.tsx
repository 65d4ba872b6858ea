import type { DeskView, PartView } from '@salt-circle/contracts';
import { ByReviewer } from '../../app/after/Answers.js';
import { deskAsFeedback } from '../../app/after/deskAsFeedback.js';
import { labelWords } from '../../app/People.js';
import { NoteText } from '../../app/reading/NoteText.js';
import { placeWords } from '../../app/reading/places/whereabouts.js';
import { inPlace } from '../../app/reading/ReadDraft.js';
import { partLabel, partWords } from '../../app/viewing/partWords.js';
import { partAddress } from '../../app/viewing/address.js';
import { Prose } from '../../kit/index.js';
import { say } from '../../words/desk.js';

/** All of a review and its draft, one below the other: on the desk each has its place on the screen, and no more of it. */
export function OnPaper({ desk }: { readonly desk: DeskView }) {
  const { draft, exchange } = desk;
  return (
    <article className="hidden print:block">
      <p>{say('ofCourse', { exchange: exchange.title, course: exchange.courseTitle })}</p>
      <h1 className="font-serif text-2xl font-semibold">{draft.title}</h1>
      <p>
        {desk.submittedAt === null
          ? say('draftByVersionReviewBy', {
              labelWords: labelWords(desk.author),
              version: draft.version,
              labelWords2: labelWords(desk.reviewer),
            })
          : say('draftByVersionReviewByOf', {
              labelWords: labelWords(desk.author),
              version: draft.version,
              labelWords2: labelWords(desk.reviewer),
            })}
      </p>
      {draft.parts.map((part) => (
        <section key={part.id} className="mt-5">
          {draft.parts.length > 1 && <h2 className="text-lg font-semibold">{partLabel(part, draft.parts)}</h2>}
          <Part
            part={part}
            address={partAddress({ exchangeId: exchange.id, draftId: draft.draftId, partId: part.id })}
          />
        </section>
      ))}
      {desk.notes.length > 0 && (
        <section className="mt-5">
          <h2 className="text-lg font-semibold">{say('notesLabel')}</h2>
          <ul className="space-y-3">
            {inPlace(draft.parts, desk.notes).map((note) => (
              <li key={note.id} className="break-inside-avoid">
                <NoteText note={note} where={placeWords(note.place, draft.parts)} quoted />
              </li>
            ))}
          </ul>
        </section>
      )}
      <ByReviewer feedback={deskAsFeedback(desk)} timeZone={exchange.timeZone} asks={false} />
    </article>
  );
}

function Part({ part, address }: { readonly part: PartView; readonly address: string }) {
  const { show, html } = part;
  if (show === 'html' && html !== null) return <Prose html={html} />;
  return (
    <>
      <p>
        {part.kind === 'link'
          ? part.url
          : show === 'pdf'
            ? say('takeAlongHasItsPages', { about: partWords(part) })
            : partWords(part)}
      </p>
      {show === 'picture' && <img src={`${address}/copy`} alt="" className="max-h-[60vh] max-w-full" />}
    </>
  );
}
