import { Button, FileUpload } from '@chakra-ui/react';
import { FileUp } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router-dom';
import { api } from '../api.ts';
import { flushPlan } from '../job/use-job.ts';
import { PART_FILES } from '../jobs/part-files.ts';
import { FieldSays } from '../kit/FieldSays.tsx';

/** Opens a newer file of the job's part and goes to compare it. */
export function NewerFile({ jobId }: { jobId: string }) {
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const take = (file: File | undefined): void => {
    if (!file) return;
    setProblem(null);
    // The comparison starts from the plan as it is stored.
    flushPlan()
      .then(() => api.addRevision(jobId, file))
      .then(
        () => navigate(`/jobs/${jobId}/revision`),
        (e: Error) => setProblem(e.message),
      );
  };
  return (
    <FileUpload.Root
      accept={PART_FILES}
      maxFiles={1}
      acceptedFiles={[]}
      onFileChange={(d) => take(d.acceptedFiles[0] ?? d.rejectedFiles[0]?.file)}
    >
      <FileUpload.HiddenInput aria-label="newer file" />
      <FileUpload.Trigger asChild>
        <Button size="xs">
          <FileUp size={15} /> Newer file of this part
        </Button>
      </FileUpload.Trigger>
      {problem && <FieldSays>{problem}</FieldSays>}
    </FileUpload.Root>
  );
}
