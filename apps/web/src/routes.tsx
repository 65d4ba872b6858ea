import { createBrowserRouter } from 'react-router';
import { Broken, NotFound } from './app/frame/NotFound.js';
import { SignedIn } from './app/frame/SignedIn.js';
import { Loading } from './kit/index.js';
import { say } from './words/app.js';

/** Each page is loaded when it is first opened. */
export const router = createBrowserRouter([
  {
    HydrateFallback: () => <Loading what={say('saltCircleLabel')} />,
    ErrorBoundary: Broken,
    children: [
      {
        path: '/sign-in',
        lazy: async () => ({ Component: (await import('./features/sign-in/SignInPage.js')).SignInPage }),
      },
      {
        path: '/forgotten',
        lazy: async () => ({ Component: (await import('./features/sign-in/ForgottenPage.js')).ForgottenPage }),
      },
      {
        path: '/password/:token',
        lazy: async () => ({ Component: (await import('./features/sign-in/NewPasswordPage.js')).NewPasswordPage }),
      },
      {
        path: '/address/:token',
        lazy: async () => ({ Component: (await import('./features/sign-in/AddressLinkPage.js')).AddressLinkPage }),
      },
      {
        path: '/demo/mail',
        lazy: async () => ({ Component: (await import('./features/outbox/DemoMailPage.js')).DemoMailPage }),
      },
      {
        path: '/join/:token',
        lazy: async () => ({ Component: (await import('./features/join/JoinPage.js')).JoinPage }),
      },
      {
        path: '/arrive/stopped/:fault',
        lazy: async () => ({ Component: (await import('./features/arrive/StoppedPage.js')).StoppedPage }),
      },
      {
        path: '/arrive/:token',
        lazy: async () => ({ Component: (await import('./features/arrive/ArrivePage.js')).ArrivePage }),
      },
      {
        path: '/lti-window',
        lazy: async () => ({ Component: (await import('./features/arrive/WindowPage.js')).WindowPage }),
      },
      {
        path: '/platform-proof/:token',
        lazy: async () => ({ Component: (await import('./features/arrive/ProofPage.js')).ProofPage }),
      },
      { path: '/demo', lazy: async () => ({ Component: (await import('./features/demo/DemoPage.js')).DemoPage }) },
      { path: '/kit', lazy: async () => ({ Component: (await import('./features/kit-page/KitPage.js')).KitPage }) },
      {
        Component: SignedIn,
        children: [
          { path: '/', lazy: async () => ({ Component: (await import('./features/today/TodayPage.js')).TodayPage }) },
          {
            path: '/inbox',
            lazy: async () => ({ Component: (await import('./features/inbox/InboxPage.js')).InboxPage }),
          },
          {
            path: '/account',
            lazy: async () => ({ Component: (await import('./features/account/AccountPage.js')).AccountPage }),
          },
          {
            path: '/platforms',
            lazy: async () => ({ Component: (await import('./features/platforms/PlatformsPage.js')).PlatformsPage }),
          },
          {
            path: '/description',
            lazy: async () => ({
              Component: (await import('./features/description/DescriptionPage.js')).DescriptionPage,
            }),
          },
          {
            path: '/courses/:courseId',
            lazy: async () => ({ Component: (await import('./features/courses/CoursePage.js')).CoursePage }),
            children: [
              {
                index: true,
                lazy: async () => ({ Component: (await import('./features/courses/ExchangesPage.js')).ExchangesPage }),
              },
              {
                path: 'people',
                lazy: async () => ({ Component: (await import('./features/people/PeoplePage.js')).PeoplePage }),
              },
              {
                path: 'groups',
                lazy: async () => ({ Component: (await import('./features/groups/GroupsPage.js')).GroupsPage }),
              },
              {
                path: 'library',
                lazy: async () => ({ Component: (await import('./features/library/LibraryPage.js')).LibraryPage }),
              },
              {
                path: 'library/forms/:formId',
                lazy: async () => ({
                  Component: (await import('./features/form-builder/LibraryFormPage.js')).LibraryFormPage,
                }),
              },
              {
                path: 'library/shorthand/:setId',
                lazy: async () => ({ Component: (await import('./features/library/ShorthandPage.js')).ShorthandPage }),
              },
              {
                path: 'insights',
                lazy: async () => ({
                  Component: (await import('./features/insights/CourseInsightsPage.js')).CourseInsightsPage,
                }),
              },
              {
                path: 'outbox',
                lazy: async () => ({ Component: (await import('./features/outbox/OutboxPage.js')).OutboxPage }),
              },
              {
                path: 'settings',
                lazy: async () => ({ Component: (await import('./features/courses/SettingsPage.js')).SettingsPage }),
              },
            ],
          },
          {
            path: '/exchanges/:exchangeId',
            lazy: async () => ({ Component: (await import('./features/exchange/ExchangePage.js')).ExchangePage }),
            children: [
              {
                index: true,
                lazy: async () => ({ Component: (await import('./features/exchange/WhereToGo.js')).WhereToGo }),
              },
              {
                path: 'plan',
                lazy: async () => ({ Component: (await import('./features/plan/PlanPage.js')).PlanPage }),
              },
              {
                path: 'plan/form',
                lazy: async () => ({
                  Component: (await import('./features/form-builder/FormBuilderPage.js')).FormBuilderPage,
                }),
              },
              {
                path: 'drafts',
                lazy: async () => ({ Component: (await import('./features/tracking/DraftsPage.js')).DraftsPage }),
              },
              {
                path: 'drafts/:draftId',
                lazy: async () => ({ Component: (await import('./features/tracking/ReadDraftPage.js')).ReadDraftPage }),
              },
              {
                path: 'allocation',
                lazy: async () => ({
                  Component: (await import('./features/allocation/AllocationPage.js')).AllocationPage,
                }),
              },
              {
                path: 'reviews',
                lazy: async () => ({ Component: (await import('./features/tracking/ReviewsPage.js')).ReviewsPage }),
              },
              {
                path: 'check',
                lazy: async () => ({ Component: (await import('./features/moderation/CheckPage.js')).CheckPage }),
              },
              {
                path: 'check/:draftId',
                lazy: async () => ({
                  Component: (await import('./features/moderation/SideBySidePage.js')).SideBySidePage,
                }),
              },
              {
                path: 'draft',
                lazy: async () => ({ Component: (await import('./features/hand-in/HandInPage.js')).HandInPage }),
              },
              {
                path: 'practice',
                lazy: async () => ({ Component: (await import('./features/practice/PracticePage.js')).PracticePage }),
              },
              {
                path: 'review',
                lazy: async () => ({ Component: (await import('./features/exchange/MyReviewsPage.js')).MyReviewsPage }),
              },
              {
                path: 'revise',
                lazy: async () => ({ Component: (await import('./features/revise/RevisePage.js')).RevisePage }),
              },
              {
                path: 'others/:reviewId',
                lazy: async () => ({ Component: (await import('./features/feedback/OthersPage.js')).OthersPage }),
              },
              {
                path: 'revisions/:draftId',
                lazy: async () => ({ Component: (await import('./features/revise/RevisePage.js')).RevisionPage }),
              },
              {
                path: 'reflection',
                lazy: async () => ({ Component: (await import('./features/revise/ReflectionPage.js')).ReflectionPage }),
              },
              {
                path: 'grades',
                lazy: async () => ({ Component: (await import('./features/grades/GradesPage.js')).GradesPage }),
              },
              {
                path: 'grades/:participantId',
                lazy: async () => ({ Component: (await import('./features/grades/GradingDesk.js')).GradingDesk }),
                children: [
                  {
                    index: true,
                    lazy: async () => ({ Component: (await import('./features/grades/DraftBeside.js')).DraftBeside }),
                  },
                  {
                    path: 'given/:reviewId',
                    lazy: async () => ({ Component: (await import('./features/grades/GivenBeside.js')).GivenBeside }),
                  },
                  {
                    path: 'revision/:draftId',
                    lazy: async () => ({ Component: (await import('./features/revise/RevisePage.js')).RevisionPage }),
                  },
                ],
              },
              {
                path: 'insights',
                lazy: async () => ({ Component: (await import('./features/insights/InsightsPage.js')).InsightsPage }),
              },
              {
                path: 'grade',
                lazy: async () => ({ Component: (await import('./features/grades/OwnGradePage.js')).OwnGradePage }),
              },
              {
                path: 'activity',
                lazy: async () => ({ Component: (await import('./features/activity/ActivityPage.js')).ActivityPage }),
              },
              {
                path: 'after',
                lazy: async () => ({ Component: (await import('./features/after/AfterPage.js')).AfterPage }),
              },
              {
                path: 'after/:draftId',
                lazy: async () => ({ Component: (await import('./features/revise/RevisePage.js')).RevisionPage }),
              },
              {
                path: 'feedback',
                lazy: async () => ({ Component: (await import('./features/feedback/FeedbackPage.js')).FeedbackPage }),
              },
            ],
          },
          {
            path: '/practice/:practiceId',
            lazy: async () => ({
              Component: (await import('./features/practice/PracticeResultPage.js')).PracticeResultPage,
            }),
          },
          {
            path: '/reviews/:reviewId',
            lazy: async () => ({ Component: (await import('./features/desk/DeskPage.js')).DeskPage }),
          },
          {
            path: '/reviews/:reviewId/draft',
            lazy: async () => ({ Component: (await import('./features/desk/DeskPage.js')).DraftWindowPage }),
          },
        ],
      },
      { path: '*', Component: NotFound },
    ],
  },
]);
