import { Text } from '@chakra-ui/react';

/** Print symbols drawn as SVG: text faces lack them. */
const SYMBOLS: Record<string, { path: string; name: string }> = {
  '⌀': { path: 'M6 2.5a4 4 0 1 0 0 8a4 4 0 1 0 0-8M2.5 11.5l7-10', name: 'diameter' },
  '↧': { path: 'M2 1.5h8M6 1.5v9M3 7.5l3 3.5l3-3.5', name: 'deep' },
  '⌴': { path: 'M1.5 3v7.5h9V3', name: 'counterbore' },
  '⌵': { path: 'M1.5 3l4.5 7.5L10.500 3', name: 'countersink' },
};

/** A callout with its symbols, readable aloud. */
export function CalloutText({ text }: { text: string }) {
  const parts = text.split(/([⌀↧⌴⌵])/);
  return (
    <Text as="span" textStyle="num" whiteSpace="nowrap">
      {parts.map((part, i) => {
        const symbol = SYMBOLS[part];
        if (!symbol) return <span key={i}>{part}</span>;
        return (
          <svg
            key={i}
            width="12"
            height="13"
            viewBox="0 0 12 13"
            role="img"
            aria-label={symbol.name}
            className="sign"
          >
            <path d={symbol.path} fill="none" stroke="currentColor" strokeWidth="1.3" />
          </svg>
        );
      })}
    </Text>
  );
}
