import { inside, signedIn, staffOnly, type Row } from './row.js';

/** Open to authors once their feedback is; nobody here has a part that is a PDF. Whoever handed in nothing has nothing to take along. */
const ONCE_OPEN = [403, 403, 403, 200] as const;
const NOT_THERE = [403, 403, 403, 404] as const;
const AUTHORS = { instructor: 403, assistant: 403, ann: ONCE_OPEN, ben: ONCE_OPEN, cho: NOT_THERE, ...inside };

/** Files with what was written about drafts: as the pages on which it is read. */
export function marked({ id, byAnn }: { readonly id: string; readonly byAnn: string }, draftOfBen: string): Row[] {
  const exchange = `/exchanges/${id}`;
  const feedback = `${exchange}/drafts/${draftOfBen}/feedback`;
  // As the review itself: its reviewer from when it can be written, its author once the feedback is open.
  const ann = [403, 200, 200, 200] as const;
  const ben = [404, 404, 404, 200] as const;
  const reviewers = { instructor: 200, assistant: 200, ann, ben, cho: 404, ...inside };
  const own = (file: string): Row => ({
    ...{ route: `GET /api/exchanges/:exchangeId/feedback/${file}`, url: `${exchange}/feedback/${file}`, ...AUTHORS },
  });
  const staff = (file: string): Row => ({
    route: `GET /api/exchanges/:exchangeId/drafts/:draftId/feedback/${file}`,
    url: `${feedback}/${file}`,
    ...staffOnly(200),
  });
  const review = (file: string): Row => ({
    ...{ route: `GET /api/reviews/:reviewId/${file}`, url: `/reviews/${byAnn}/${file}`, ...reviewers },
  });
  return [
    ...['draft.docx', 'notes.jsonld'].flatMap((file) => [own(file), staff(file), review(file)]),
    {
      route: 'GET /api/exchanges/:exchangeId/feedback/parts/:partId/notes.pdf',
      url: `${exchange}/feedback/parts/none/notes.pdf`,
      ...{ ...AUTHORS, ann: NOT_THERE, ben: NOT_THERE },
    },
    {
      route: 'GET /api/exchanges/:exchangeId/drafts/:draftId/feedback/parts/:partId/notes.pdf',
      url: `${feedback}/parts/none/notes.pdf`,
      ...staffOnly(404),
    },
    {
      route: 'GET /api/reviews/:reviewId/parts/:partId/notes.pdf',
      url: `/reviews/${byAnn}/parts/none/notes.pdf`,
      ...{ instructor: 404, assistant: 404, ann: [403, 404, 404, 404], ben: 404, cho: 404, ...inside },
    },
    { route: 'GET /api/exchanges/:exchangeId/notes.jsonld', url: `${exchange}/notes.jsonld`, ...staffOnly(200) },
    {
      route: 'GET /api/exchanges/:exchangeId/archive.zip',
      url: `${exchange}/archive.zip?people=aliases`,
      ...staffOnly(200, 403),
    },
    ...['/preview', ''].map((what): Row => ({
      route: `POST /api/archives${what}`,
      url: `/archives${what}`,
      body: {
        uploadId: '00000000-0000-4000-8000-000000000000',
        ...(what === '' && { courseTitle: 'Read back' }),
      },
      // Whoever makes courses, has none of that upload.
      ...{ ...signedIn(403), instructor: 404 },
    })),
  ];
}
