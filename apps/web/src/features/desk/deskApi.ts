import type { EarlierView, ReviewNamesView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { useEarlierQuery, useNamesInReviewQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    earlier: build.query<EarlierView, string>({ query: (id) => `/reviews/${id}/earlier` }),
    namesInReview: build.query<ReviewNamesView, string>({ query: (id) => `/reviews/${id}/names` }),
  }),
});
