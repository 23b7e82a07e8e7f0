import { Slider, type SliderRootProps } from '@chakra-ui/react';

interface Props extends Omit<SliderRootProps, 'value' | 'onValueChange' | 'onChange' | 'aria-label'> {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange(value: number): void;
}

/** A place along a line, taken while it is dragged. */
export function Slide({ label, value, min, max, step, onChange, ...root }: Props) {
  return (
    <Slider.Root
      size="sm"
      min={min}
      max={max}
      step={step}
      value={[Math.max(min, Math.min(max, value))]}
      onValueChange={({ value: [v] }) => v !== undefined && onChange(v)}
      aria-label={[label]}
      {...root}
    >
      <Slider.Control>
        <Slider.Track background="trough">
          <Slider.Range background="edge" />
        </Slider.Track>
        <Slider.Thumb index={0} borderColor="ink" background="field" />
      </Slider.Control>
    </Slider.Root>
  );
}
