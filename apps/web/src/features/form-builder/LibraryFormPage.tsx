import type { LibraryFormView } from '@salt-circle/contracts';
import { useCallback } from 'react';
import { Link, useParams } from 'react-router';
import { useCourse } from '../../app/useCourse.js';
import { useLibraryFormQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useMe } from '../../app/session/useMe.js';
import { useFresh } from '../../app/useFresh.js';
import { buttonClass, Loading } from '../../kit/index.js';
import { asBuilt, Builder } from './Builder.js';
import { say } from '../../words/form-builder.js';

/** A form of the library, edited apart from any exchange. */
export function LibraryFormPage() {
  const { formId = '' } = useParams();
  const course = useCourse();
  const query = useLibraryFormQuery({ courseId: course.id, id: formId }, { refetchOnMountOrArgChange: true });
  const form = useFresh(query);
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (form === undefined) return <Loading what={say('form')} />;
  return <LibraryForm form={form} />;
}

function LibraryForm({ form }: { readonly form: LibraryFormView }) {
  const course = useCourse();
  const me = useMe();
  const { refetch } = useLibraryFormQuery({ courseId: course.id, id: form.id });
  const onSaved = useCallback(() => void refetch(), [refetch]);
  return (
    <Builder
      titled
      built={asBuilt(form)}
      revision={form.revision}
      problems={form.problems}
      readOnly={course.role !== 'instructor'}
      saveKey={`${me.id}:library:${form.id}`}
      url={`/api/courses/${course.id}/library/forms/${form.id}`}
      heading={say('formInLibrary')}
      onSaved={onSaved}
      actions={
        <Link to={`/courses/${course.id}/library`} className={buttonClass('plain', true)}>
          {say('backToLibrary')}
        </Link>
      }
    />
  );
}
