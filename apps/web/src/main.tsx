import { StrictMode, Suspense, lazy, useEffect, useMemo, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { ConfigProvider, type ConfigProviderProps } from 'antd';
import { BrowserRouter, Route, Routes } from 'react-router';
import { Signed } from './office/account/Signed.tsx';
import { sessionQuery } from './data/api/people.ts';
import { RefusedError } from './data/api/request.ts';
import { languageOf, speak } from './app/platform/language.ts';
import { faceOf } from './app/platform/theme.ts';
import {
  PreferencesProvider,
  storedPreferences,
  usePreferences,
} from './app/platform/preferences.tsx';
import { Loading, NotFound } from './app/platform/states.tsx';
import 'virtual:antd.css';
import './app/platform/theme.css';
import './app/platform/layout.css';
import { screenNow } from './app/frame/useScreen.ts';
import { board, phonePrograms } from './visit/programs/boards.ts';
import { language, say } from '@water-clock/core';

type Locale = NonNullable<ConfigProviderProps['locale']>;

const officeFrame = () => import('./app/frame/OfficeFrame.tsx');
const todayPage = () => import('./office/today/TodayPage.tsx');
const sitesPage = () => import('./office/sites/SitesPage.tsx');
const timerPage = () => import('./visit/timer/TimerPage.tsx');
const OfficeFrame = lazy(officeFrame);
const TodayPage = lazy(todayPage);
const SitesPage = lazy(sitesPage);
const TimerPage = lazy(timerPage);
const NewSitePage = lazy(() => import('./office/sites/NewSitePage.tsx'));
const HousePage = lazy(() => import('./office/sites/HousePage.tsx'));
const LibraryPage = lazy(() => import('./office/library/LibraryPage.tsx'));
const AccountPage = lazy(() => import('./office/account/AccountPage.tsx'));
const NewCompanyPage = lazy(() => import('./office/account/NewCompanyPage.tsx'));
const JoinPage = lazy(() => import('./office/account/JoinPage.tsx'));
const CompanyPage = lazy(() => import('./office/company/CompanyPage.tsx'));
const KeptPage = lazy(() => import('./office/account/KeptPage.tsx'));
const BenchPage = lazy(() => import('./training/bench/BenchPage.tsx'));
const TasksPage = lazy(() => import('./training/bench/TasksPage.tsx'));
const TaskPage = lazy(() => import('./training/bench/TaskPage.tsx'));
const CalendarPage = lazy(() => import('./office/calendar/CalendarPage.tsx'));
const ReplansPage = lazy(() => import('./office/replans/ReplansPage.tsx'));
const ReplanPage = lazy(() => import('./office/replans/ReplanPage.tsx'));
const PublicPage = lazy(() => import('./homeowner/PublicPage.tsx'));

/** Code of the pages opened most often, by the first part of the path. */
const NEEDS: Readonly<Record<string, readonly (() => Promise<unknown>)[]>> = {
  '': [officeFrame, todayPage],
  sites: [officeFrame, sitesPage],
  timers: [timerPage, screenNow() === 'phone' ? phonePrograms : board],
};

const client = new QueryClient({
  defaultOptions: {
    // Connectivity is tested by requests, with stored answers as a fallback.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 5000,
      // A refusal is final; only an unreachable server is worth a retry.
      retry: (count, error) => !(error instanceof RefusedError) && count < 3,
    },
  },
});

/** English is built in. Any other language is loaded before anything is drawn, and before code that makes messages while loading. */
const chosen = languageOf(storedPreferences());
const localeReady = chosen === 'en' ? Promise.resolve() : speak(chosen);

/** Asks who is signed in before anything is drawn; the page's code follows at once, all together, and not for strangers. */
async function headStart(): Promise<void> {
  const { person } = await client.fetchQuery(sessionQuery);
  await localeReady;
  const needs = NEEDS[location.pathname.split('/')[1] ?? ''] ?? [];
  if (person) await Promise.all(needs.map((fetchCode) => fetchCode()));
}
// What fails here is requested again where it is needed.
if (!['/page', '/new-company', '/join'].includes(location.pathname))
  void headStart().catch(() => undefined);

/** Nonce for styles added by the component library. */
const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce ?? '';

/** The component library's own text, if not in English. */
function useLocale(): Locale | undefined {
  const [locale, setLocale] = useState<Locale>();
  useEffect(() => {
    if (language() === 'es')
      void import('antd/locale/es_ES.js').then(({ default: words }) => setLocale(words));
  }, []);
  return locale;
}

function Application() {
  const { theme, contrast, textSize } = usePreferences();
  const locale = useLocale();
  const face = useMemo(() => faceOf({ theme, contrast, textSize }), [theme, contrast, textSize]);
  return (
    <ConfigProvider theme={face} csp={{ nonce }} {...(locale ? { locale } : {})}>
      <BrowserRouter>
        <Suspense fallback={<Loading what={say`the page`} />}>
          <Routes>
            <Route path="page" element={<PublicPage />} />
            <Route path="new-company" element={<NewCompanyPage />} />
            <Route path="join" element={<JoinPage />} />
            <Route element={<Signed />}>
              <Route path="timers/:timerId/:view?/:station?" element={<TimerPage />} />
              <Route element={<OfficeFrame />}>
                <Route index element={<TodayPage />} />
                <Route path="sites" element={<SitesPage />} />
                <Route path="sites/new" element={<NewSitePage />} />
                <Route path="sites/:siteId" element={<HousePage />} />
                <Route path="device" element={<KeptPage />} />
                <Route path="bench" element={<BenchPage />} />
                <Route path="bench/tasks" element={<TasksPage />} />
                <Route path="bench/tasks/:taskId" element={<TaskPage />} />
                <Route path="bench/random/:level/:seed" element={<TaskPage />} />
                <Route path="calendar" element={<CalendarPage />} />
                <Route path="replans" element={<ReplansPage />} />
                <Route path="replans/:replanId" element={<ReplanPage />} />
                <Route path="company/:part?" element={<CompanyPage />} />
                <Route path="account" element={<AccountPage />} />
                <Route path="library/:shelf?/:entry?" element={<LibraryPage />} />
                <Route path="*" element={<NotFound />} />
              </Route>
            </Route>
          </Routes>
        </Suspense>
      </BrowserRouter>
    </ConfigProvider>
  );
}

const root = document.getElementById('root');
if (!root) throw new Error('index.html has no #root');
const draw = () =>
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <PreferencesProvider>
          <Application />
        </PreferencesProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
if (chosen === 'en') draw();
// If the language cannot be loaded, English is used.
else void localeReady.catch(() => undefined).then(draw);
