import { useSessionQuery } from '../api.js';

/** The signed-in person. Only below the frame, which shows nothing else before. */
export function useMe(): {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly createsCourses: boolean;
} {
  const { data } = useSessionQuery();
  if (data?.person == null) throw new Error('this page is shown to signed-in people only');
  return data.person;
}
