/** What a part may come as, for the browser's own list of files. */
export const PART_FILES = ['.step', '.stp', '.dxf', '.STEP', '.STP', '.DXF'];
