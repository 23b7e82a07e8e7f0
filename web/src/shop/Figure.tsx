import { TextField } from '../kit/TextField.tsx';

interface FigureProps {
  label: string;
  value: number | undefined;
  optional?: boolean;
  onTake(v: number | undefined): void;
}

/** A bare figure: what it is of stands in the head of its column. */
export function Figure({ label, value, optional = false, onTake }: FigureProps) {
  return (
    <TextField
      label={label}
      size="xs"
      width="70px"
      textStyle="num"
      textAlign="right"
      value={value === undefined ? '' : String(Math.round(value * 1e5) / 1e5)}
      onTake={(text) => {
        const v = Number(text.trim().replace(',', '.'));
        if (text.trim() === '') {
          if (!optional) return 'A number.';
          onTake(undefined);
          return null;
        }
        if (!(Number.isFinite(v) && v >= 0)) return 'A number from 0.';
        onTake(v);
        return null;
      }}
    />
  );
}
