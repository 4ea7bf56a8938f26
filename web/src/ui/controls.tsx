/** The component library's controls as panels beside a drawing use them: told anew under a hand, drawn anew only when they change. */
import { Button as AnyButton, Radio, Segmented as AnySegmented, Select as AnySelect, Switch as AnySwitch } from "antd";
import { steady } from "./steady";

export const Button = steady(AnyButton) as typeof AnyButton;
export const Select = steady(AnySelect) as typeof AnySelect;
export const Segmented = steady(AnySegmented) as typeof AnySegmented;
export const Switch = steady(AnySwitch) as typeof AnySwitch;
export const RadioGroup = steady(Radio.Group) as typeof Radio.Group;
