const part = encodeURIComponent;

/** Addresses of what the server offers; the one place where they are written. */
export const paths = {
  yard: '/api/yard',
  species: '/api/species',
  trees: '/api/trees',
  importTree: (tree?: string) => `/api/trees/import${tree ? `?id=${part(tree)}` : ''}`,
  generateTree: '/api/trees/made-up',
  tree: (tree: string) => `/api/trees/${part(tree)}`,
  aside: (tree: string) => `/api/trees/${part(tree)}/aside`,
  treeFile: (tree: string) => `/api/trees/${part(tree)}/file`,
  silhouette: (tree: string, revision: number) => `/api/trees/${part(tree)}/silhouette?revision=${revision}`,
  plan: (tree: string, on?: string) => `/api/trees/${part(tree)}/plan${on ? `?on=${on}` : ''}`,
  branchCsv: (tree: string) => `/api/trees/${part(tree)}/branches.csv`,
  acts: (tree: string) => `/api/trees/${part(tree)}/acts`,
  steps: (tree: string) => `/api/trees/${part(tree)}/steps`,
  caliper: '/api/devices/caliper',
  caliperPress: '/api/devices/caliper/press',
  scale: '/api/devices/scale',
  scalePress: '/api/devices/scale/press',
  rack: '/api/rack',
  rackLines: '/api/rack/lines',
  pieces: (tree: string) => `/api/rack/pieces/${part(tree)}`,
  season: '/api/season',
  calendar: '/api/season.ics',
  backup: '/api/backup',
  docs: '/api/docs',
} as const;
