import { Box, Skeleton, Stack } from '@chakra-ui/react';
import { useJob } from '../job/job-view.ts';
import { Worksheet } from './Worksheet.tsx';

/** The worksheet beside the part. */
export default function WorksheetPlace() {
  const { produced } = useJob();
  if (produced) return <Worksheet />;
  return (
    <Box as="section" className="sheet" aria-label="Worksheet">
      <Stack padding="16px" role="status" aria-label="Working out the plan">
        {[0, 1, 2, 3].map((i) => (
          <Skeleton key={i} height="36px" />
        ))}
      </Stack>
    </Box>
  );
}
