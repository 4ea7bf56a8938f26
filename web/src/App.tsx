import { App as AntApp, ConfigProvider } from "antd";
import { useEffect } from "react";
import { usePlaceInAddress } from "./shell/route";
import { useSettings } from "./shell/settings";
import { themeOf } from "./shell/theme";
import { SitePage } from "./site/SitePage";
import { SitesPage } from "./site/SitesPage";

export function App() {
  const dark = useSettings((settings) => settings.dark);
  const place = usePlaceInAddress();
  useEffect(() => {
    document.documentElement.dataset.light = dark ? "night" : "day";
  }, [dark]);
  return (
    <ConfigProvider theme={themeOf(dark)}>
      <AntApp component={false}>{place ? <SitePage key={place.site} id={place.site} stage={place.stage} /> : <SitesPage />}</AntApp>
    </ConfigProvider>
  );
}
