export { KernelFailure, openCascade } from './opencascade.ts';
export { DEFAULT_SIZE_LIMIT, readStep, tooLargeMessage } from './read-step.ts';
export { StepFileError } from './step-text.ts';
export type { Progress } from './opencascade.ts';
