const id = encodeURIComponent;

/** Addresses of what the server offers; the one place where they are written. */
export const paths = {
  yard: '/api/yard',
  species: '/api/species',
  trees: '/api/trees',
  importTree: '/api/trees/import',
  generateTree: '/api/trees/made-up',
  tree: (tree: string) => `/api/trees/${id(tree)}`,
  treeFile: (tree: string) => `/api/trees/${id(tree)}/file`,
  plan: (tree: string, on?: string) => `/api/trees/${id(tree)}/plan${on ? `?on=${on}` : ''}`,
  measured: (tree: string) => `/api/trees/${id(tree)}/measured`,
  measuredCsv: (tree: string, revision: number, kind: 'branches' | 'cylinders') => `/api/trees/${id(tree)}/measured/${kind}?revision=${revision}`,
  branchCsv: (tree: string) => `/api/trees/${id(tree)}/branches.csv`,
  pinned: (tree: string) => `/api/trees/${id(tree)}/plan/pinned`,
  reading: (tree: string) => `/api/trees/${id(tree)}/plan/reading`,
  caliper: '/api/devices/caliper',
  caliperPress: '/api/devices/caliper/press',
  front: (tree: string) => `/api/trees/${id(tree)}/plan/front`,
  decision: (tree: string, branch: string) => `/api/trees/${id(tree)}/plan/decisions/${id(branch)}`,
  undo: (tree: string) => `/api/trees/${id(tree)}/undo`,
  redo: (tree: string) => `/api/trees/${id(tree)}/redo`,
  wired: (tree: string) => `/api/trees/${id(tree)}/record/wired`,
  record: (tree: string) => `/api/trees/${id(tree)}/record`,
  season: '/api/season',
  calendar: '/api/season.ics',
  docs: '/api/docs',
} as const;
