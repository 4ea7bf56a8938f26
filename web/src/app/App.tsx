import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App as AntApp, ConfigProvider } from "antd";
import { Suspense, lazy, useEffect } from "react";
import { Route, Router, Switch } from "wouter";
import { useHashLocation } from "wouter/use-hash-location";
import { useSettings } from "../keep/settings";
import { SitesPage } from "../sites/SitesPage";
import { DoorNotice } from "./DoorNotice";
import { themeOf } from "./theme";

// The list of sites comes first, and by itself.
const SitePage = lazy(() => import("./SitePage").then((module) => ({ default: module.SitePage })));

const CataloguePage = lazy(() =>
  import("../catalogue/CataloguePage").then((module) => ({ default: module.CataloguePage })),
);
const PhonesPage = lazy(() => import("../phones/PhonesPage").then((module) => ({ default: module.PhonesPage })));

const queries = new QueryClient();

export function App() {
  const dark = useSettings((settings) => settings.dark);
  useEffect(() => {
    document.documentElement.dataset["light"] = dark ? "night" : "day";
  }, [dark]);
  return (
    <ConfigProvider theme={themeOf(dark)}>
      <AntApp component={false}>
        <QueryClientProvider client={queries}>
          <Router hook={useHashLocation}>
            <DoorNotice />
            <Suspense fallback={<p className="hint page-waits">Working …</p>}>
              <Switch>
                <Route<{ id: string; number: string }> path="/site/:id/revision/:number">
                  {({ id, number }) => (
                    <SitePage
                      key={`${id}/${number}`}
                      id={id}
                      stage="aim"
                      step={null}
                      item={null}
                      looking={Number(number)}
                    />
                  )}
                </Route>
                <Route<{ id: string; step?: string; item?: string }> path="/site/:id/survey/:step?/:item?">
                  {({ id, step, item }) => (
                    <SitePage key={id} id={id} stage="survey" step={step ?? null} item={item ?? null} />
                  )}
                </Route>
                <Route<{ id: string; step?: string }> path="/site/:id/wire/:step?">
                  {({ id, step }) => <SitePage key={id} id={id} stage="wire" step={step ?? null} item={null} />}
                </Route>
                <Route<{ id: string; step?: string; item?: string }> path="/site/:id/fit/:step?/:item?">
                  {({ id, step, item }) => (
                    <SitePage key={id} id={id} stage="fit" step={step ?? null} item={item ?? null} />
                  )}
                </Route>
                <Route<{ id: string; step?: string; item?: string }> path="/site/:id/prove/:step?/:item?">
                  {({ id, step, item }) => (
                    <SitePage key={id} id={id} stage="prove" step={step ?? null} item={item ?? null} />
                  )}
                </Route>
                <Route<{ id: string; step?: string }> path="/site/:id/papers/:step?">
                  {({ id, step }) => <SitePage key={id} id={id} stage="papers" step={step ?? null} item={null} />}
                </Route>
                <Route<{ id: string; head?: string }> path="/site/:id/cards/:head?">
                  {({ id, head }) => <SitePage key={id} id={id} stage="aim" step="cards" item={head ?? null} />}
                </Route>
                <Route<{ id: string; head?: string }> path="/site/:id/settings/:head?">
                  {({ id, head }) => <SitePage key={id} id={id} stage="aim" step="settings" item={head ?? null} />}
                </Route>
                <Route path="/site/:id">
                  {({ id }) => <SitePage key={id} id={id} stage="aim" step={null} item={null} />}
                </Route>
                <Route path="/cameras">
                  <CataloguePage />
                </Route>
                <Route path="/phones">
                  <PhonesPage />
                </Route>
                <Route>
                  <SitesPage />
                </Route>
              </Switch>
            </Suspense>
          </Router>
        </QueryClientProvider>
      </AntApp>
    </ConfigProvider>
  );
}
