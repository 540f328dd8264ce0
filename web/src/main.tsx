import "@fontsource-variable/source-sans-3";
import "@fontsource-variable/source-serif-4";
import "./shared/tones.css";
import "./shared/frame.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { AccountPage } from "./features/account/AccountPage";
import { CustomersPage } from "./features/customers/CustomersPage";
import { DispatchPage } from "./features/dispatch/DispatchPage";
import { IntakePage } from "./features/ledger/IntakePage";
import { LedgerPage } from "./features/ledger/LedgerPage";
import { PeoplePage } from "./features/people/PeoplePage";
import { PostroomPage } from "./features/postroom/PostroomPage";
import { RoundsPage } from "./features/rounds/RoundsPage";
import { Workbench } from "./features/rounds/Workbench";
import { FirstRunPage } from "./features/sign-in/FirstRunPage";
import { HomePage } from "./features/sign-in/HomePage";
import { JoinPage } from "./features/sign-in/JoinPage";
import { NewBookPage } from "./features/sign-in/NewBookPage";
import { ResetPage } from "./features/sign-in/ResetPage";
import { SignInPage } from "./features/sign-in/SignInPage";
import { TodayPage } from "./features/today/TodayPage";
import { WordsPage } from "./features/wordings/WordsPage";
import { isAway, Problem } from "./shared/api/client";
import { AwayLine } from "./shared/AwayLine";
import { Frame } from "./shared/Frame";
import { basePath } from "./shared/served";
import { ToneProvider } from "./shared/tone";

// Who is away is asked again until they are back; a change is only made again where the server said that it was not made.
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (times, error) => isAway(error) || times < 1,
      retryDelay: (times, error) => (isAway(error) ? 2_000 : 1_000 * 2 ** times),
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
        <AwayLine />
        <BrowserRouter basename={basePath}>
          <Routes>
            <Route path="/" element={<HomePage />} />
            <Route path="/sign-in" element={<SignInPage />} />
            <Route path="/first-run" element={<FirstRunPage />} />
            <Route path="/join" element={<JoinPage />} />
            <Route path="/reset" element={<ResetPage />} />
            <Route path="/new-book" element={<NewBookPage />} />
            <Route path="/books/:book" element={<Frame />}>
              <Route index element={<Navigate to="today" replace />} />
              <Route path="today" element={<TodayPage />} />
              <Route path="ledger" element={<LedgerPage />} />
              <Route path="ledger/:intake" element={<IntakePage />} />
              <Route path="customers" element={<CustomersPage />} />
              <Route path="rounds" element={<RoundsPage />} />
              <Route path="rounds/:round" element={<Workbench />} />
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
