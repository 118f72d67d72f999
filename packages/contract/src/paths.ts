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
