import { QueryClient, QueryClientProvider, useQuery, useQueryClient } from "@tanstack/react-query";
import { Tooltip } from "radix-ui";
import { StrictMode, useCallback, useEffect, useMemo, useState } from "react";
import { createRoot } from "react-dom/client";
import { Navigate, createBrowserRouter } from "react-router";
import { RouterProvider } from "react-router/dom";
import { SIGNED_OUT, getReference, getSession, getUnits } from "./design/api";
import { Reference, ReferenceContext } from "./design/reference";
import { PeopleContext } from "./people";
import type { Settings } from "./preferences";
import { PreferencesContext, storeSettings, storedSettings } from "./preferences";
import { SignIn } from "./SignIn";
import "./styles.css";
import { Units, UnitsContext } from "./ui/units";
import { WellList } from "./wells/WellList";
import { Message, Workbench } from "./Workbench";

const formulas = () => import("./formulas/FormulasPage").then((m) => ({ Component: m.FormulasPage }));

const router = createBrowserRouter([
  { path: "/", element: <WellList /> },
  { path: "/designs/:designId", element: <Navigate to="depths" replace /> },
  { path: "/designs/:designId/history", lazy: () => import("./history/HistoryPage").then((m) => ({ Component: m.HistoryPage })) },
  { path: "/designs/:designId/beside/:otherId", lazy: () => import("./history/BesidePage").then((m) => ({ Component: m.BesidePage })) },
  { path: "/designs/:designId/:step", element: <Workbench /> },
  { path: "/formulas", lazy: formulas },
  { path: "/formulas/:name", lazy: formulas },
  { path: "*", element: <Message text="Nothing is kept under this address." /> },
]);

/** Lets in whom the server knows; a session that ends asks again over the page. */
function Gate() {
  const client = useQueryClient();
  const { data: session, isError } = useQuery({ queryKey: ["session"], queryFn: getSession, staleTime: Infinity });
  const [ended, setEnded] = useState(false);
  useEffect(() => {
    const onEnd = () => {
      setEnded(true);
    };
    window.addEventListener(SIGNED_OUT, onEnd);
    return () => {
      window.removeEventListener(SIGNED_OUT, onEnd);
    };
  }, []);
  const again = useCallback(() => {
    setEnded(false);
    void client.invalidateQueries();
  }, [client]);
  const people = useMemo(() => ({ ...(session ?? { accounts: false, name: null, role: null }), again }), [session, again]);
  if (session === undefined)
    return <p className="grid h-full place-items-center text-mute">{isError ? "The server is not reached. Is it running?" : "Loading…"}</p>;
  if (session.accounts && session.name === null) return <SignIn done={again} />;
  return (
    <PeopleContext value={people}>
      <App />
      {ended && <SignIn over done={again} />}
    </PeopleContext>
  );
}

function App() {
  const [settings, setSettings] = useState(storedSettings);
  const { data, isError } = useQuery({ queryKey: ["units"], queryFn: getUnits, staleTime: Infinity });
  const prefer = useCallback((part: Partial<Settings>) => {
    setSettings((held) => ({ ...held, ...part }));
  }, []);
  useEffect(() => {
    document.documentElement.classList.toggle("dark", settings.dark);
    storeSettings(settings);
  }, [settings]);
  const preferences = useMemo(() => ({ ...settings, prefer }), [settings, prefer]);
  const { data: told } = useQuery({ queryKey: ["reference"], queryFn: getReference, staleTime: Infinity });
  const units = useMemo(() => (data ? new Units(settings.units, data) : null), [data, settings.units]);
  const reference = useMemo(() => (told ? new Reference(told.steps, told.fields, told.terms, told.log_kinds) : null), [told]);
  if (units === null || reference === null) {
    return <p className="grid h-full place-items-center text-mute">{isError ? "The server is not reached. Is it running?" : "Loading…"}</p>;
  }
  return (
    <PreferencesContext value={preferences}>
      <ReferenceContext value={reference}>
        <UnitsContext value={units}>
          <Tooltip.Provider delayDuration={250}>
            <RouterProvider router={router} />
          </Tooltip.Provider>
        </UnitsContext>
      </ReferenceContext>
    </PreferencesContext>
  );
}

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={new QueryClient()}>
      <Gate />
    </QueryClientProvider>
  </StrictMode>,
);
