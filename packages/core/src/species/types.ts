/** How sure a figure is: 'fair' agrees with several practitioners' accounts, 'low' with few, 'guess' by kinship only. */
export type Confidence = 'fair' | 'low' | 'guess';

export interface Figure {
  value: number;
  unit: string;
  confidence: Confidence;
}

export type Bark = 'thin' | 'medium' | 'corky';
export type Habit = 'down' | 'level' | 'up';
export type Group = 'evergreen conifer' | 'deciduous conifer' | 'deciduous broadleaf' | 'evergreen broadleaf';
export type Leaf = 'scale' | 'needle' | 'tuft' | 'small leaf' | 'broad leaf';
export type Task = 'pruning' | 'wiring' | 'heavyBending' | 'repotting' | 'unwiring';

/** One wave of growth in the northern temperate year, month-day, and its share of the year's radial growth. */
export interface Flush {
  from: string;
  to: string;
  share: number;
}

/** What one kind of tree is like; estimates for branch wood in training pots. */
export interface Species {
  key: string;
  name: string;
  group: Group;
  leaf: Leaf;
  /** Green strength σ_c, MPa. */
  strength: Figure;
  /** Elastic strain limit ε_e. */
  elasticStrain: Figure;
  /** Smallest safe bend radius over diameter of a thin branch, k₀. */
  bendRatio: Figure;
  /** Yearly radial growth g in a training pot, mm. */
  yearlyGrowth: Figure;
  /** Share of the elastic curvature that never relaxes, ρ∞. */
  relaxedShare: Figure;
  /** Time constant τ of that relaxation, growing days. */
  relaxationDays: Figure;
  /** Share ψ of a bend beyond the elastic part that creeps back within days. */
  recovery: Figure;
  /** Largest share of the green to take in one year from a tree of normal vigour. */
  greenCap: Figure;
  bark: Bark;
  /** Years in which a shallow mark grows out on a vigorous tree; null: it stays. */
  markFadeYears: number | null;
  budsBackOnOldWood: boolean;
  /** Loses sap when cut before it is in leaf. */
  bleeds: boolean;
  habit: Habit;
  flushes: Flush[];
  /** Good and bad months (northern year, 1–12) for each kind of work. */
  months: Record<Task, { good: number[]; bad: number[] }>;
  hazards: string[];
}
