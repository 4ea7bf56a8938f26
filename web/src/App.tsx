import { App as AntApp, ConfigProvider } from "antd";
import { useEffect } from "react";
import { AimPage } from "./aim/AimPage";
import { useSiteInAddress } from "./shell/route";
import { useSettings } from "./shell/settings";
import { themeOf } from "./shell/theme";
import { SitesPage } from "./site/SitesPage";

export function App() {
  const dark = useSettings((settings) => settings.dark);
  const site = useSiteInAddress();
  useEffect(() => {
    document.documentElement.dataset.light = dark ? "night" : "day";
  }, [dark]);
  return (
    <ConfigProvider theme={themeOf(dark)}>
      <AntApp component={false}>{site ? <AimPage key={site} id={site} /> : <SitesPage />}</AntApp>
    </ConfigProvider>
  );
}
