import { Box, Flex } from '@chakra-ui/react';
import { useSortable } from '@dnd-kit/sortable';
import { FileMinus, FilePlus } from 'lucide-react';
import { IconAct } from '../kit/IconAct.tsx';
import { NEW_CUT } from './rail-items.ts';

/** Dragged between two tools, the program goes on in another file from there; pressed, it is cut before the tool in hand. */
export function CutTile({ onAdd }: { onAdd(): void }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({ id: NEW_CUT });
  return (
    <Flex
      as="li"
      ref={setNodeRef}
      listStyleType="none"
      align="center"
      width="30px"
      flexShrink={0}
      style={{ transform: transform && isDragging ? `translateX(${transform.x}px)` : undefined }}
    >
      <IconAct
        {...attributes}
        {...listeners}
        label="Another file begins: drag it between two tools, or press it to begin one before the tool in hand"
        cursor="grab"
        touchAction="none"
        onClick={onAdd}
      >
        <FilePlus size={16} />
      </IconAct>
    </Flex>
  );
}

/** Another file begins here. */
export function Cut({ id, number, onAway }: { id: string; number: number | null; onAway(): void }) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  return (
    <Flex
      as="li"
      ref={setNodeRef}
      data-testid="rail-cut"
      listStyleType="none"
      direction="column"
      align="center"
      width="24px"
      flexShrink={0}
      style={{ transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
    >
      <IconAct label={`No other file before T${number ?? '–'}`} onClick={onAway}>
        <FileMinus size={15} />
      </IconAct>
      <Box
        {...attributes}
        {...listeners}
        aria-label={`Another file begins before T${number ?? '–'}, drag to move`}
        flex="1"
        width="14px"
        cursor="grab"
        touchAction="none"
        position="relative"
        _before={{
          content: '""',
          position: 'absolute',
          insetBlock: '0',
          insetInlineStart: '6px',
          borderInlineStart: '2px dashed',
          borderColor: 'ink',
        }}
      />
    </Flex>
  );
}
