import { FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router-dom';
import { api } from '../api.ts';
import { flushPlan } from '../bench/use-job.ts';

/** Opens a newer file of the job's part and goes to compare it. */
export function NewerFile({ jobId }: { jobId: string }) {
  const input = useRef<HTMLInputElement>(null);
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
    <>
      <button className="plain-button" onClick={() => input.current?.click()}>
        <FileUp size={15} /> Newer file of this part
      </button>
      <input ref={input} type="file" accept=".step,.stp,.dxf,.STEP,.STP,.DXF" hidden aria-label="newer file" onChange={(e) => (take(e.target.files?.[0]), (e.target.value = ''))} />
      {problem && (
        <span role="alert" className="field-error">
          {problem}
        </span>
      )}
    </>
  );
}
