import { Injectable } from '@nestjs/common';
import { LIMITS, type FieldProblem, type FormFileRequest, type FormImportView } from '@salt-circle/contracts';
import {
  caseRubricTitles,
  checkForm,
  FORM_FORMAT,
  readCaseRubric,
  readFormFile,
  readFormRows,
  writeCaseRubric,
  writeFormFile,
  writeFormRows,
  type FileProblem,
  type FormReading,
} from '@salt-circle/core';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCanSee } from '../../permissions/access.js';
import { iso } from '../../platform/wire/instants.js';
import { Ids } from '../../platform/ids/ids.js';
import { csvOf, unreadable } from '../../platform/tables/cells.js';
import { Tables } from '../../platform/tables/tables.js';
import type { ReadTable } from '../../platform/tables/worker/tables.js';
import { formProblem, invalid } from '../../platform/problems/sentences.js';
import { itemOf, LibraryService } from './library.service.js';
import { say } from '../../words/library.js';
import { fact } from '../../platform/problems/fact.js';

export type FormFormat = 'json' | 'case' | 'csv';

export interface FormFile {
  readonly name: string;
  readonly type: string;
  readonly text: string;
}

/** Forms of the library as open files, in and out. */
@Injectable()
export class FormFilesService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly library: LibraryService,
    private readonly tables: Tables,
  ) {}

  async write(person: CurrentUser, courseId: string, id: string, format: FormFormat): Promise<FormFile> {
    const context = await this.access.course(person, courseId);
    assertCanSee(context, { kind: 'people' });
    const { title, content } = await itemOf(this.database.read, courseId, id, 'form');
    const titled = { title, form: content };
    const stem = fileStem(title);
    switch (format) {
      case 'json':
        return { name: `${stem}.json`, type: 'application/json', text: pretty(writeFormFile(titled)) };
      case 'case': {
        const around = {
          makeId: () => this.ids.uuid(),
          changedAt: iso(this.clock.now()),
          baseUri: `${this.database.mail.publicUrl}/case`,
        };
        return {
          name: `${stem}.case.json`,
          type: 'application/json',
          text: pretty(writeCaseRubric(titled, around).document),
        };
      }
      case 'csv':
        return { name: `${stem}.csv`, type: 'text/csv; charset=utf-8', text: csvOf(writeFormRows(titled).rows) };
    }
  }

  /** Says what a file was understood to be, and adds it when asked to and nothing is wrong. */
  async read(person: CurrentUser, courseId: string, request: FormFileRequest): Promise<FormImportView> {
    await this.library.assertMayChange(person, courseId);
    const source = await this.tables.table(request);
    return this.library.changing(person, courseId, async (manager) => {
      const { kind, reading, titles } = this.#understood(request, source);
      const problems: FieldProblem[] = reading.problems.slice(0, LIMITS.problems).map(fileProblem);
      if (reading.found !== null) problems.push(...checkForm(reading.found.form).map(formProblem));
      const title = reading.found?.title || stemOf(request.name);
      let addedId: string | null = null;
      if (request.add) {
        // What checkForm finds can be mended in the builder; what could not be read cannot.
        if (reading.found === null || reading.problems.length > 0) throw invalid(problems);
        addedId = (await this.library.insert(manager, courseId, 'form', title.slice(0, 200), reading.found.form)).id;
      }
      return { kind, title, form: reading.found?.form ?? null, problems, ignored: reading.ignored, titles, addedId };
    });
  }

  #understood(
    request: FormFileRequest,
    source: ReadTable,
  ): { kind: FormImportView['kind']; reading: FormReading; titles: string[] } {
    const makeId = () => this.ids.uuid();
    if (source.kind === 'table') {
      return { kind: 'table', reading: readFormRows(source.cells, stemOf(request.name), makeId), titles: [] };
    }
    const value = parsed(source.text.replace(/^\uFEFF/u, ''));
    const isOwn = (value as { format?: unknown } | null)?.format === FORM_FORMAT;
    const titles = caseRubricTitles(value);
    if (isOwn || titles.length === 0) return { kind: 'form-file', reading: readFormFile(value, makeId), titles: [] };
    return { kind: 'rubric', reading: readCaseRubric(value, makeId, request.index), titles };
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw unreadable(say('fileLooksLikeJsonBut'), say('exportItAgainOrCheck'));
  }
}

function pretty(value: unknown): string {
  return `${JSON.stringify(value, null, 2)}\n`;
}

function stemOf(name: string): string {
  const stem = name.replace(/(\.case)?\.\w{1,5}$/u, '').trim();
  return stem === '' ? say('importedForm') : stem;
}

/** A title as the name of a file on any system. */
function fileStem(title: string): string {
  const plain = title
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^A-Za-z0-9]+/gu, '-')
    .replace(/^-|-$/gu, '')
    .slice(0, 60);
  return plain === '' ? 'form' : plain.toLowerCase();
}

function fileProblem(problem: FileProblem): FieldProblem {
  return { path: problem.path.join('.'), code: problem.code, sentence: fileSentence(problem) };
}

function fileSentence({ code, path, facts }: FileProblem): string {
  const where = path.length === 0 ? say('file') : `“${path.join('.')}”`;
  switch (code) {
    case 'not-an-object':
      return say('isNotMadeAsExpected', { where: path.length === 0 ? say('fileLabel') : where });
    case 'wrong-format':
      return say('thisIsNoFormFile', { wanted: fact(facts, 'wanted') });
    case 'wrong-version':
      return say('thisFormFileIsOf', { version: fact(facts, 'version'), known: fact(facts, 'known') });
    case 'field-missing':
      return say('isMissing', { where });
    case 'field-type':
      return say('shouldBe', { where, type: facts['type'] === 'flag' ? say('yesOrNoTrueOr') : fact(facts, 'type') });
    case 'kind-unknown':
      return say('isItShouldBeOne', { where, value: fact(facts, 'value'), known: fact(facts, 'known') });
    case 'too-many':
      return say('hasEntriesUpToCan', { where, count: fact(facts, 'count'), max: fact(facts, 'max') });
    case 'rubric-missing':
      return say('thereIsNoRubricCfrubric');
    case 'column-missing':
      return say('noColumnIsNamedName', { column: fact(facts, 'column') });
    case 'points-not-a-number':
      return say('rowPointsAreNotNumber', { row: fact(facts, 'row'), value: fact(facts, 'value') });
    case 'row-without-criterion':
      return say('rowBelongsToNoCriterion', { row: fact(facts, 'row') });
    case 'file-empty':
      return say('thereAreNoRowsUnder');
  }
}
