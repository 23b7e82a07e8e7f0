import { Box, Button, Flex, List, Progress, Text } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { IconAct } from '../kit/IconAct.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import type { Upload } from './use-uploads.ts';

interface Props {
  uploads: readonly Upload[];
  onRetry(u: Upload): void;
  onForget(key: number): void;
}

/** Files that are being sent, or could not be. */
export function UploadList({ uploads, onRetry, onForget }: Props) {
  const shown = uploads.filter((u) => u.job === null);
  if (shown.length === 0) return null;
  return (
    <List.Root listStyle="none" aria-label="Files on their way" gap="4px" marginBottom="14px">
      {shown.map((u) => (
        <List.Item key={u.key}>
          <Flex
            gap="10px"
            align="center"
            wrap="wrap"
            padding="6px 12px"
            background={u.error ? 'error-ground' : 'sheet'}
            color={u.error ? 'error-ink' : 'ink'}
            borderWidth="1px"
            borderColor="rule"
            borderRadius="4px"
            role={u.error ? 'alert' : 'status'}
          >
            <Text fontWeight="600" overflowWrap="anywhere">
              {u.file.name}
            </Text>
            {u.error ? (
              <Text flex="1">{u.error}</Text>
            ) : (
              <Box flex="1" minWidth="140px">
                <Progress.Root value={100 * u.sent} size="xs" aria-label={`Sending ${u.file.name}`}>
                  <Progress.Track background="trough">
                    <Progress.Range background="ink" />
                  </Progress.Track>
                </Progress.Root>
                <Quiet textStyle="small">{u.sent < 1 ? 'sending' : 'looking at it'}</Quiet>
              </Box>
            )}
            {u.error && (
              <Button size="xs" onClick={() => onRetry(u)}>
                Send again
              </Button>
            )}
            {!u.error && (
              <Button size="xs" onClick={u.cancel}>
                Cancel
              </Button>
            )}
            {u.error && (
              <IconAct label={`Close ${u.file.name}`} onClick={() => onForget(u.key)}>
                <X size={15} />
              </IconAct>
            )}
          </Flex>
        </List.Item>
      ))}
    </List.Root>
  );
}
