import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { StrictMode, useEffect, useMemo, useState } from "react";
import { createRoot } from "react-dom/client";
import { Navigate, createBrowserRouter } from "react-router";
import { RouterProvider } from "react-router/dom";
import { getUnits } from "./design/api";
import type { System } from "./design/types";
import { PreferencesContext, storedDark, storedSystem } from "./preferences";
import "./styles.css";
import { Units, UnitsContext } from "./ui/units";
import { FormulasPage } from "./formulas/FormulasPage";
import { WellList } from "./wells/WellList";
import { Workbench } from "./Workbench";

const router = createBrowserRouter([
  { path: "/", element: <WellList /> },
  { path: "/designs/:designId", element: <Navigate to="depths" replace /> },
  { path: "/designs/:designId/:step", element: <Workbench /> },
  { path: "/formulas", element: <FormulasPage /> },
  { path: "/formulas/:name", element: <FormulasPage /> },
  { path: "*", element: <Navigate to="/" replace /> },
]);

function App() {
  const [system, setSystem] = useState<System>(storedSystem);
  const [dark, setDark] = useState(storedDark);
  const { data, isError } = useQuery({ queryKey: ["units"], queryFn: getUnits, staleTime: Infinity });
  useEffect(() => {
    document.documentElement.classList.toggle("dark", dark);
    localStorage.setItem("knollstack.dark", dark ? "yes" : "no");
  }, [dark]);
  useEffect(() => {
    localStorage.setItem("knollstack.units", system);
  }, [system]);
  const units = useMemo(() => (data ? new Units(system, data) : null), [data, system]);
  if (units === null) {
    return <p className="grid h-full place-items-center text-mute">{isError ? "The server is not reached. Is it running?" : "Loading…"}</p>;
  }
  return (
    <PreferencesContext value={{ system, dark, setSystem, setDark }}>
      <UnitsContext value={units}>
        <RouterProvider router={router} />
      </UnitsContext>
    </PreferencesContext>
  );
}

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={new QueryClient()}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);
