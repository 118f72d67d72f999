import { Injectable } from '@nestjs/common';
import type { LearnedView, WeatherView } from '@ustle/contract';
import type { WeatherBody } from '@ustle/contract/bodies';
import {
  addCases,
  findSpecies,
  knownFrom,
  NO_CASES,
  normalQuantile,
  saysNothing,
  seasonsAhead,
  type Ahead,
  type Hemisphere,
  type Known,
  type TreeSays,
} from '@ustle/core';
import { simulatedStation, type Station } from '../devices/station.js';
import { ComputeService } from '../plans/compute.service.js';
import { ProblemException } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { Settings } from '../store/settings.service.js';
import { Store } from '../store/store.service.js';
import { TreesService } from '../trees/trees.service.js';

type Listed = Awaited<ReturnType<TreesService['listed']>>[number];

/** The station is read from the winter before last on: what is older no wire stands in. */
const WEATHER_DAYS = 3 * 365;
const SHOWN_DAYS = 42;
const IN_FIVE = normalQuantile(0.9);

/** What is taken of a tree before its own record speaks: from others of its kind in the yard, and from the weather there. */
@Injectable()
export class KnownService {
  private readonly says = new Map<string, { key: string; said: Promise<TreeSays> }>();
  private warmth: { day: number; hemisphere: Hemisphere; ahead: Promise<Ahead[]> } | null = null;

  constructor(
    private readonly trees: TreesService,
    private readonly compute: ComputeService,
    private readonly clock: Clock,
    private readonly store: Store,
    private readonly settings: Settings,
  ) {}

  private saidBy({ id, revision, recorded, species }: Listed): Promise<TreeSays> {
    const key = `${revision}/${recorded}/${this.clock.today()}`;
    const before = this.says.get(id);
    if (before?.key === key) return before.said;
    const said = this.trees
      .tree(id)
      .then(({ tree }) => this.compute.saysOf(tree, this.clock.today()))
      .catch((error: unknown) => {
        // What cannot be read, or takes too long, teaches nothing, until it is asked again.
        if (this.says.get(id)?.said === said) this.says.delete(id);
        if (error instanceof ProblemException) return saysNothing(species);
        throw error;
      });
    this.says.set(id, { key, said });
    return said;
  }

  /** What is taken of a tree. */
  async of(id: string): Promise<Known> {
    const rows = await this.trees.listed();
    return this.among(rows, rows.find((r) => r.id === id)?.species ?? '', id);
  }

  /** The same, where all trees are listed already. */
  async among(rows: readonly Listed[], species: string, id: string): Promise<Known> {
    const others = rows.filter((r) => r.species === species && r.id !== id && r.recorded > 0);
    const station = await this.station();
    return knownFrom(await Promise.all(others.map((r) => this.saidBy(r))), { ahead: await this.ahead(station), aheadIn: station.hemisphere });
  }

  /** By kinds, how the yard's trees grow against what was foreseen. */
  async learned(): Promise<LearnedView[]> {
    const rows = await this.trees.listed();
    const said = await Promise.all(rows.filter((r) => r.recorded > 0).map((r) => this.saidBy(r)));
    const kinds = [...new Set(said.map((s) => s.species))].sort();
    return kinds.flatMap((species): LearnedView[] => {
      const own = said.filter((s) => s.species === species);
      const cases = own.reduce((sum, s) => addCases(sum, s.cases), NO_CASES);
      const looks = own.reduce((sum, s) => sum + s.looks, 0);
      if (!looks && !own.some((s) => s.spring.precision)) return [];
      const { growth, spring } = knownFrom(own);
      const band = ({ mean, sd }: { mean: number; sd: number }): LearnedView['pace'] => ({
        likely: Math.exp(mean),
        low: Math.exp(mean - IN_FIVE * sd),
        high: Math.exp(mean + IN_FIVE * sd),
      });
      return [{ species, name: findSpecies(species)!.name, trees: own.length, looks, pace: band(growth), spring: band(spring), cases }];
    });
  }

  /** The station, where the yard says that it stands. */
  private async station(): Promise<Station> {
    return simulatedStation((await this.store.read((db) => this.settings.read(db, 'station', 'north'))) as Hemisphere);
  }

  private async ahead({ hemisphere, monthly, means }: Station): Promise<Ahead[]> {
    if (!(await this.weatherOn())) return [];
    const day = this.clock.today();
    if (this.warmth?.day !== day || this.warmth.hemisphere !== hemisphere) {
      const ahead = means(day - WEATHER_DAYS, day - 1).then((read) => seasonsAhead(read, monthly, hemisphere));
      ahead.catch(() => (this.warmth = null));
      this.warmth = { day, hemisphere, ahead };
    }
    return this.warmth.ahead;
  }

  private weatherOn(): Promise<boolean> {
    return this.store.read(async (db) => (await this.settings.read(db, 'weather', false)) as boolean);
  }

  /** What the station says, and what it makes of the season. */
  async weather(): Promise<WeatherView> {
    const day = this.clock.today();
    const station = await this.station();
    const means = await station.means(day - WEATHER_DAYS, day - 1);
    const all = seasonsAhead(means, station.monthly, station.hemisphere);
    const days = means.slice(-SHOWN_DAYS);
    return {
      on: await this.weatherOn(),
      station: station.name,
      hemisphere: station.hemisphere,
      days,
      ahead: all[all.length - 1]?.days ?? 0,
      missing: days.filter((d) => d.mean === null).length,
    };
  }

  /** Whether growth is counted by the station's warmth, and where that stands. */
  async countWarmth({ on, hemisphere }: WeatherBody): Promise<WeatherView> {
    await this.store.write(async ({ db }) => {
      await this.settings.write(db, 'weather', on);
      if (hemisphere) await this.settings.write(db, 'station', hemisphere);
    });
    return this.weather();
  }
}
