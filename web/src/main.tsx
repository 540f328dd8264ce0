import "@fontsource-variable/source-sans-3";
import "@fontsource-variable/source-serif-4";
import "./shared/tones.css";
import "./shared/spacing.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { isUnreachable, Problem } from "./shared/api/client";
import { UnreachableLine } from "./shared/UnreachableLine";
import { Frame } from "./features/frame/Frame";
import { page } from "./shared/page";
import { PageBoundary } from "./shared/PageBoundary";
import { basePath } from "./shared/served";
import { ToneProvider } from "./shared/tone";

const AccountPage = page(() => import("./features/account/AccountPage"), "AccountPage");
const CustomersPage = page(() => import("./features/customers/CustomersPage"), "CustomersPage");
const DispatchPage = page(() => import("./features/dispatch/DispatchPage"), "DispatchPage");
const IntakePage = page(() => import("./features/ledger/IntakePage"), "IntakePage");
const LedgerPage = page(() => import("./features/ledger/LedgerPage"), "LedgerPage");
const PeoplePage = page(() => import("./features/people/PeoplePage"), "PeoplePage");
const PostroomPage = page(() => import("./features/postroom/PostroomPage"), "PostroomPage");
const RoundsPage = page(() => import("./features/rounds/RoundsPage"), "RoundsPage");
const CopiesPage = page(() => import("./features/enclosures/CopiesPage"), "CopiesPage");
const Workbench = page(() => import("./features/rounds/Workbench"), "Workbench");
const FirstRunPage = page(() => import("./features/sign-in/FirstRunPage"), "FirstRunPage");
const HomePage = page(() => import("./features/sign-in/HomePage"), "HomePage");
const JoinPage = page(() => import("./features/sign-in/JoinPage"), "JoinPage");
const NewBookPage = page(() => import("./features/sign-in/NewBookPage"), "NewBookPage");
const ResetPage = page(() => import("./features/sign-in/ResetPage"), "ResetPage");
const SignInPage = page(() => import("./features/sign-in/SignInPage"), "SignInPage");
const TodayPage = page(() => import("./features/today/TodayPage"), "TodayPage");
const WordsPage = page(() => import("./features/wordings/WordsPage"), "WordsPage");

// Who is away is asked again until they are back; a change is only made again where the server said that it was not made.
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (times, error) => isUnreachable(error) || times < 1,
      retryDelay: (times, error) => (isUnreachable(error) ? 2_000 : 1_000 * 2 ** times),
      networkMode: "always",
      staleTime: 5_000,
    },
    mutations: {
      retry: (times, error) => error instanceof Problem && error.status === 503 && times < 30,
      retryDelay: 2_000,
      networkMode: "always",
    },
  },
});

const root = document.getElementById("root");
if (!root) {
  throw new Error("The page has no place to draw into.");
}
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <ToneProvider>
        <UnreachableLine />
        {/* What was picked is in view before the next key is pressed: it acts on what is in view. */}
        <BrowserRouter basename={basePath} useTransitions={false}>
          <Routes>
            <Route element={<PageBoundary />}>
              <Route path="/" element={<HomePage />} />
              <Route path="/sign-in" element={<SignInPage />} />
              <Route path="/first-run" element={<FirstRunPage />} />
              <Route path="/join" element={<JoinPage />} />
              <Route path="/reset" element={<ResetPage />} />
              <Route path="/new-book" element={<NewBookPage />} />
            </Route>
            <Route path="/books/:book" element={<Frame />}>
              <Route index element={<Navigate to="today" replace />} />
              <Route path="today" element={<TodayPage />} />
              <Route path="ledger" element={<LedgerPage />} />
              <Route path="ledger/:intake" element={<IntakePage />} />
              <Route path="customers" element={<CustomersPage />} />
              <Route path="rounds" element={<RoundsPage />} />
              <Route path="rounds/:round" element={<Workbench />} />
              <Route path="rounds/:round/copies" element={<CopiesPage />} />
              <Route path="words" element={<WordsPage />} />
              <Route path="dispatch" element={<DispatchPage />} />
              <Route path="people" element={<PeoplePage />} />
              <Route path="account" element={<AccountPage />} />
              <Route path="postroom" element={<PostroomPage />} />
            </Route>
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </BrowserRouter>
      </ToneProvider>
    </QueryClientProvider>
  </StrictMode>,
);
