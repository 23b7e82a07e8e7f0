import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { FileUp, Trash2, X } from 'lucide-react';
import { useEffect, useRef, useState, type DragEvent } from 'react';
import { Link, useNavigate } from 'react-router-dom';
import { api, type Job } from '../api.ts';

/** All jobs; a new one by dropping a STEP file. */
export function JobsPage() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [deleted, setDeleted] = useState<Job | null>(null);
  /** The upload to open as soon as it is read. */
  const [waiting, setWaiting] = useState<string | null>(null);
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: api.jobs, refetchInterval: (q) => (q.state.data?.some((j) => j.status === 'reading') ? 600 : false) });
  const refresh = () => client.invalidateQueries({ queryKey: ['jobs'] });
  const upload = useMutation({
    mutationFn: api.upload,
    onSuccess: (job) => {
      setWaiting(job.id);
      void refresh();
    },
    onError: (e) => setProblem(e.message),
  });
  const remove = useMutation({
    mutationFn: (job: Job) => api.remove(job.id).then(() => job),
    onSuccess: (job) => (setDeleted(job), void refresh()),
    onError: (e) => setProblem(e.message),
  });
  const restore = useMutation({ mutationFn: (id: string) => api.restore(id), onSuccess: () => (setDeleted(null), void refresh()), onError: (e) => setProblem(e.message) });
  const cancel = useMutation({ mutationFn: (id: string) => api.cancel(id), onSuccess: refresh, onError: (e) => setProblem(e.message) });

  const ready = jobs.data?.find((j) => j.id === waiting && j.status === 'ready');
  useEffect(() => {
    if (ready) void navigate(`/jobs/${ready.id}`);
  }, [ready, navigate]);

  const take = (files: FileList | null): void => {
    const file = files?.[0];
    if (!file) return;
    setProblem(null);
    if (files.length > 1) setProblem(`${files.length} files were dropped; ${file.name} is read. Drop the others one by one.`);
    upload.mutate(file);
  };
  const drop = (e: DragEvent): void => {
    e.preventDefault();
    setOver(false);
    take(e.dataTransfer.files);
  };
  return (
    <main className="page" onDragOver={(e) => (e.preventDefault(), setOver(true))} onDragLeave={() => setOver(false)} onDrop={drop}>
      <h1 style={{ display: 'flex', gap: 10, alignItems: 'center', fontSize: 24, fontWeight: 700, margin: '0 0 18px' }}>
        <img src="/pin.svg" alt="" width={30} height={30} /> Yellow Pin
      </h1>
      <div className={`drop${over ? ' over' : ''}`}>
        <FileUp size={26} aria-hidden="true" style={{ display: 'inline' }} />
        <p style={{ margin: '6px 0 10px' }}>Drop a part here: a STEP file (.step, .stp) or a 2D drawing (.dxf)</p>
        <button className="plain-button" onClick={() => input.current?.click()} disabled={upload.isPending}>
          {upload.isPending ? 'Sending …' : 'Choose a file'}
        </button>
        <input ref={input} type="file" accept=".step,.stp,.dxf,.STEP,.STP,.DXF" hidden aria-label="STEP file" onChange={(e) => (take(e.target.files), (e.target.value = ''))} />
      </div>
      {problem && (
        <div className="notice error" role="alert" style={{ marginBottom: 16 }}>
          <span style={{ flex: 1 }}>{problem}</span>
          <button className="icon-button" aria-label="Close" onClick={() => setProblem(null)}>
            <X size={16} />
          </button>
        </div>
      )}
      {jobs.isPending && <p className="quiet">Loading the jobs …</p>}
      {jobs.isError && (
        <div className="notice error" role="alert">
          <span style={{ flex: 1 }}>{jobs.error.message}</span>
          <button className="plain-button" onClick={() => void jobs.refetch()}>
            Try again
          </button>
        </div>
      )}
      {jobs.data?.length === 0 && <p className="quiet">No jobs yet. Drop a part above, and its features are found and tagged.</p>}
      {jobs.data && jobs.data.length > 0 && (
        <table className="jobs-table">
          <thead>
            <tr>
              <th>job</th>
              <th>file</th>
              <th>state</th>
              <th>made</th>
              <th>
                <span className="hidden-text">actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {jobs.data.map((job) => (
              <tr key={job.id}>
                <td>
                  {job.status === 'ready' ? (
                    <Link to={`/jobs/${job.id}`} style={{ fontWeight: 600, textDecoration: 'underline', textDecorationColor: '#b9b19c' }}>
                      {job.name}
                    </Link>
                  ) : (
                    job.name
                  )}
                </td>
                <td className="quiet">{job.fileName}</td>
                <td>
                  <State job={job} onCancel={() => cancel.mutate(job.id)} />
                </td>
                <td className="num quiet">{new Date(job.createdAt).toLocaleDateString()}</td>
                <td style={{ textAlign: 'right' }}>
                  <button className="icon-button" aria-label={`Delete ${job.name}`} title="Delete" onClick={() => remove.mutate(job)}>
                    <Trash2 size={16} />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {deleted && (
        <div className="toast" role="status">
          {deleted.name.slice(0, 60)} is deleted.
          <button onClick={() => restore.mutate(deleted.id)}>Undo</button>
        </div>
      )}
    </main>
  );
}

function State({ job, onCancel }: { job: Job; onCancel(): void }) {
  if (job.status === 'ready') return <span>ready</span>;
  if (job.status === 'reading') {
    return (
      <span style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
        <span className="progress" role="progressbar" aria-valuenow={Math.round(job.progress * 100)} aria-label={`Reading ${job.name}`}>
          <i style={{ width: `${Math.max(4, job.progress * 100)}%` }} />
        </span>
        <small className="quiet">{job.progressText}</small>
        <button className="plain-button" onClick={onCancel}>
          Cancel
        </button>
      </span>
    );
  }
  return <span style={{ color: job.status === 'failed' ? 'var(--error)' : 'var(--ink2)' }}>{job.error ?? job.status}</span>;
}
