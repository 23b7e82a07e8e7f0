/** What a part may come as, for the browser's own list of files. */
export const PART_FILES = ['.step', '.stp', '.dxf', '.STEP', '.STP', '.DXF'];

/** Whether a file's name says that it is a solid, not a drawing. */
export const isStepName = (name: string): boolean => /\.(step|stp)$/i.test(name);
