import { Switch } from "antd";

/** A setting that is on or off. */
export function SwitchSetting(props: {
  label: string;
  value: boolean;
  change: (value: boolean) => void;
  hint?: string;
}): React.ReactNode {
  const { label, value, change, hint } = props;
  return (
    <div className="setting">
      <label className="switch-line">
        <Switch size="small" checked={value} onChange={change} aria-label={label} />
        {label}
      </label>
      {hint && <span className="hint">{hint}</span>}
    </div>
  );
}
