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
      fontFamily: "Barlow, sans-serif",
      fontSize: 15,
      borderRadius: 3,
      wireframe: false,
    },
    components: {
      Button: { primaryColor: dark ? "#18222d" : "#fffdf7", fontWeight: 500 },
    },
  };
}
