/** Ant Design under our own tokens: the same paper, ink and saffron as the drawings. */
import { type ThemeConfig, theme } from "antd";

export function themeOf(dark: boolean): ThemeConfig {
  return {
    algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: dark ? "#f2a900" : "#18222d",
      colorInfo: dark ? "#7fb3c0" : "#1f6f80",
      colorSuccess: dark ? "#5fc59a" : "#1b7a52",
      colorWarning: dark ? "#f0b24a" : "#9a5b00",
      colorError: dark ? "#ff8a7a" : "#b3261e",
      colorLink: dark ? "#9fd0dc" : "#17596a",
      colorBgBase: dark ? "#141a20" : "#fffdf7",
      colorTextBase: dark ? "#f1ece0" : "#18222d",
      colorBgContainer: dark ? "#1a2129" : "#fffdf7",
      colorBgElevated: dark ? "#232c35" : "#fffdf7",
      colorBorder: dark ? "#4a545d" : "#d3cab4",
      colorBorderSecondary: dark ? "#313b45" : "#e0d9c7",
      fontFamily: "Barlow, sans-serif",
      fontSize: 15,
      borderRadius: 3,
      wireframe: false,
    },
    components: {
      Table: {
        headerBg: dark ? "#232c35" : "#f5f1e6",
        headerSplitColor: "transparent",
        rowHoverBg: dark ? "#33290f" : "#fff2d1",
      },
      Button: { primaryColor: dark ? "#18222d" : "#fffdf7", fontWeight: 500 },
    },
  };
}
