import { EMPTY_FORM, type FormItem, type ReviewForm } from '../form/form.js';
import { readCaseRubric, writeCaseRubric } from './caseRubric.js';
import { readFormRows, writeFormRows } from './formCsv.js';

/** Settings of items and of the form as a whole that a file of another kind may have no place for. */
export const LOSSES = [
  'kind',
  'guidance',
  'optional',
  'comment',
  'weight',
  'minimum-words',
  'overall',
  'notes',
  'score-by-weights',
] as const;

export interface FormLosses {
  /** Titles of items that are left out, in their order. */
  readonly items: readonly string[];
  /** What is not told of what is in the file, in the order of {@link LOSSES}. */
  readonly settings: ReadonlyArray<(typeof LOSSES)[number]>;
}

/** Ids do not matter: nothing is kept of what is read. */
const noId = () => '';

/**
 * What somebody who reads the file will not have of the form: found by writing and reading it, so that it is true of
 * whatever the two do.
 *
 * @param as `csv` for the table, `case` for a rubric of 1EdTech CASE 1.1
 */
export function formLosses(form: ReviewForm, as: 'csv' | 'case'): FormLosses {
  const titled = { title: 'Form', form };
  const written = as === 'csv' ? writeFormRows(titled) : writeCaseRubric(titled, { makeId: noId, ...AROUND });
  const reading = 'rows' in written ? readFormRows(written.rows, 'Form', noId) : readCaseRubric(written.document, noId);
  const back = reading.found?.form ?? EMPTY_FORM;
  const kept = form.items.filter((item) => !written.leftOut.includes(item));
  const settings = new Set<(typeof LOSSES)[number]>();
  for (const [index, item] of kept.entries()) {
    const other = back.items[index];
    if (other !== undefined) for (const loss of itemLosses(item, other, form.weighting)) settings.add(loss);
  }
  if (form.overall !== back.overall || form.overallWords !== back.overallWords) settings.add('overall');
  if (form.minimumNotes !== back.minimumNotes || form.targetNotes !== back.targetNotes) settings.add('notes');
  if (form.weighting !== back.weighting) settings.add('score-by-weights');
  return { items: written.leftOut.map(({ title }) => title), settings: LOSSES.filter((loss) => settings.has(loss)) };
}

const AROUND = { changedAt: '1970-01-01T00:00:00Z', baseUri: 'https://example.org' };

function itemLosses(
  item: FormItem,
  back: FormItem,
  weighting: ReviewForm['weighting'],
): Array<(typeof LOSSES)[number]> {
  const lost: Array<(typeof LOSSES)[number]> = [];
  if (item.kind !== back.kind) lost.push('kind');
  if (item.guidance !== back.guidance) lost.push('guidance');
  if (item.required !== back.required) lost.push('optional');
  if (weighting === 'weights' && item.weight !== back.weight) lost.push('weight');
  if ('comment' in item && 'comment' in back && item.comment !== back.comment) lost.push('comment');
  if ('minimumWords' in item && 'minimumWords' in back && item.minimumWords !== back.minimumWords)
    lost.push('minimum-words');
  return lost;
}
