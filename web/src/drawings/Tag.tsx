import { ink } from '../look/palette.ts';

/** The yellow pin with its letter. Dashed while a guess waits for the programmer's word. */
export function Tag({
  letter,
  guess = false,
  size = 26,
}: {
  letter: string;
  guess?: boolean;
  size?: number;
}) {
  return (
    <svg width={size} height={size} viewBox="0 0 26 26" aria-hidden="true">
      <path
        d="M13 1a12 12 0 1 1-8.5 20.5L1.2 24.8V13A12 12 0 0 1 13 1z"
        fill={ink(guess ? 'field' : 'yellow')}
        stroke={guess ? ink('yellow-edge') : 'none'}
        strokeWidth={guess ? 1.8 : 0}
        strokeDasharray={guess ? '3.5 2.5' : undefined}
      />
      <text
        x="13"
        y="17.5"
        textAnchor="middle"
        fontSize={letter.length > 2 ? 9 : 13}
        fontWeight="700"
        fill={ink(guess ? 'ink' : 'on-yellow')}
        fontFamily="var(--yp-fonts-mono)"
      >
        {letter}
      </text>
    </svg>
  );
}
