type Props = {
  readonly label: string;
  readonly picked: boolean;
  /** Some of what it stands for are picked. */
  readonly some?: boolean;
  readonly onPick: (stretch: boolean) => void;
};

/** The box by which a row, or all of a group, is picked. */
export const Box = ({ label, picked, some = false, onPick }: Props) => (
  <label className="tap flex size-[15px]">
    <input
      type="checkbox"
      aria-label={label}
      className="size-[15px] accent-[var(--copper)]"
      checked={picked}
      ref={(box) => {
        if (box !== null) box.indeterminate = some && !picked;
      }}
      onClick={(e) => onPick(e.shiftKey)}
      onChange={() => undefined}
    />
  </label>
);
