import type { PlanSettings, ShorthandEntry } from '@salt-circle/contracts';
import type { ReviewForm } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Course } from './course.js';

/** What is kept of an exchange to be planned from again; ids of groups and people of a course stay behind. */
export interface TemplateContent {
  readonly settings: PlanSettings;
  readonly form: ReviewForm;
}

export interface ShorthandContent {
  readonly entries: readonly ShorthandEntry[];
}

/** By kind: a form, a shorthand set, or a template. */
export interface LibraryContents {
  readonly form: ReviewForm;
  readonly shorthand: ShorthandContent;
  readonly template: TemplateContent;
}

export type LibraryKind = keyof LibraryContents;

@Entity('library_item')
export class LibraryItem<Kind extends LibraryKind = LibraryKind> {
  @PrimaryColumn('text')
  id: string;

  @Index('library_item_course')
  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('text')
  kind: Kind;

  @Column('text')
  title: string;

  @Column('simple-json')
  content: LibraryContents[Kind];

  @Column('integer')
  revision: number;

  @Column('integer')
  changedAt: number;
}
