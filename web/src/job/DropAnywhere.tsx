import { Box, Button, Text } from '@chakra-ui/react';
import { useEffect, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router-dom';
import { api } from '../api.ts';
import { Asked } from '../kit/Asked.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { flushPlan } from './use-job.ts';

/** A file dropped anywhere on a job is offered as a newer revision of its part or as a job of its own; the browser never opens it. */
export function DropAnywhere({ jobId, children }: { jobId: string; children: ReactNode }) {
  const [file, setFile] = useState<File | null>(null);
  const [isOver, setOver] = useState(false);
  useEffect(() => {
    // Also what misses everything of ours must not take the page away.
    const hold = (e: DragEvent): void => {
      if (!e.dataTransfer?.types.includes('Files')) return;
      e.preventDefault();
      setOver(e.type === 'dragover');
      if (e.type === 'drop') setFile(e.dataTransfer.files[0] ?? null);
    };
    const out = (e: DragEvent): void => {
      if (e.relatedTarget === null) setOver(false);
    };
    window.addEventListener('dragover', hold);
    window.addEventListener('drop', hold);
    window.addEventListener('dragleave', out);
    return () => {
      window.removeEventListener('dragover', hold);
      window.removeEventListener('drop', hold);
      window.removeEventListener('dragleave', out);
    };
  }, []);
  return (
    <>
      {children}
      {isOver && (
        <Box
          position="fixed"
          inset="10px"
          zIndex="50"
          borderWidth="3px"
          borderStyle="dashed"
          borderColor="ink"
          borderRadius="8px"
          pointerEvents="none"
        />
      )}
      {file && <Offer key={file.name} jobId={jobId} file={file} onDone={() => setFile(null)} />}
    </>
  );
}

function Offer({ jobId, file, onDone }: { jobId: string; file: File; onDone(): void }) {
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const go = (send: () => Promise<string>): void => {
    setBusy(true);
    // What the plan is by now is stored first: a comparison starts from it.
    flushPlan()
      .then(send)
      .then(
        (to) => {
          onDone();
          void navigate(to);
        },
        (e: Error) => {
          setProblem(e.message);
          setBusy(false);
        },
      );
  };
  return (
    <Asked
      title={file.name}
      onLeave={onDone}
      answers={
        <>
          <Button
            disabled={isBusy}
            onClick={() => go(() => api.addRevision(jobId, file).then(() => `/jobs/${jobId}/revision`))}
          >
            A newer file of this part
          </Button>
          <Button disabled={isBusy} onClick={() => go(() => api.upload(file).then((j) => `/jobs/${j.id}`))}>
            A new job
          </Button>
          <Button variant="ghost" onClick={onDone}>
            Nothing
          </Button>
        </>
      }
    >
      <Text>What is this file?</Text>
      {problem && <FieldSays>{problem}</FieldSays>}
    </Asked>
  );
}
