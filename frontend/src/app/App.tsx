import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { BrowserRouter, Navigate, Route, Routes, useLocation } from "react-router";
import { shutOut } from "../api/client";
import { Desk } from "../features/desk/Desk";
import { live } from "../live/store";
import { unsaved } from "../live/unsaved";
import { Notices } from "../ui/Notice";
import { useLive } from "../ui/useLive";
import { useMe } from "../ui/useMe";
import { Fault } from "./Fault";
import { Lintel } from "./Lintel";
import { LogIn } from "./LogIn";

const Commands = lazy(() => import("../features/commands/Commands").then((m) => ({ default: m.Commands })));
const Rules = lazy(() => import("../features/rules/Rules").then((m) => ({ default: m.Rules })));
const Stage = lazy(() => import("../features/stage/Stage").then((m) => ({ default: m.Stage })));
const Timers = lazy(() => import("../features/timers/Timers").then((m) => ({ default: m.Timers })));
const People = lazy(() => import("../features/people/People").then((m) => ({ default: m.People })));
const PersonOverBench = lazy(() =>
  import("../features/people/PersonCard").then((m) => ({ default: m.PersonOverBench })),
);
const Records = lazy(() => import("../features/records/Records").then((m) => ({ default: m.Records })));
const Setup = lazy(() => import("../features/setup/Setup").then((m) => ({ default: m.Setup })));

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false }, mutations: { retry: false } },
});

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <BrowserRouter>
        <Notices>
          <Door />
        </Notices>
      </BrowserRouter>
    </QueryClientProvider>
  );
}

function Door() {
  const me = useMe();
  if (me.isPending) return null;
  if (!me.data) return <LogIn />;
  return <Rooms />;
}

function Rooms() {
  const { pathname } = useLocation();
  useEffect(() => {
    shutOut.tell = () => void queries.invalidateQueries({ queryKey: ["me"] });
    live.open(shutOut.tell);
    return () => live.close();
  }, []);
  const team = useLive((state) => state.parts.team);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whoever has moved a right has moved it for us too
  useEffect(() => {
    void queries.invalidateQueries({ queryKey: ["me"] });
    void queries.invalidateQueries({ queryKey: ["people"] });
  }, [team]);
  useEffect(() => {
    const stop = unsaved.subscribe(() => live.edits(unsaved.read().map((one) => one.path)));
    return () => void stop();
  }, []);
  const revision = useLive((state) => state.parts.settings);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another's change of settings makes what was read old
  useEffect(() => {
    void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "me" });
  }, [revision]);
  return (
    <div className="house">
      <Lintel />
      <Fault at={pathname}>
        <Suspense fallback={null}>
          <Routes>
            <Route path="/" element={<Desk Person={PersonOverBench} />} />
            <Route path="/rules/:key?" element={<Rules />} />
            <Route path="/commands/:name?" element={<Commands />} />
            <Route path="/timers/:name?" element={<Timers />} />
            <Route path="/stage/:part?/:name?" element={<Stage />} />
            <Route path="/people/:part?/:name?" element={<People />} />
            <Route path="/records/:part?" element={<Records />} />
            <Route path="/setup/:part?" element={<Setup />} />
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </Suspense>
      </Fault>
    </div>
  );
}
