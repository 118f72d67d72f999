import { CategoryScale, Chart, Filler, LinearScale, LineElement, PointElement, Tooltip, type ChartOptions } from 'chart.js';
import annotation, { type AnnotationOptions } from 'chartjs-plugin-annotation';
import { Line } from 'react-chartjs-2';
import type { PlanWire } from '@ustle/core';
import { useTheme } from '../../app/theme';
import { sayDate } from '../../shared/say';
import type { RaceCurve } from '../../jobs/planner';
import { monthTicks, weekOf, weeksOfRace } from './race-axis';

Chart.register(CategoryScale, LinearScale, LineElement, PointElement, Filler, Tooltip, annotation);

const tone = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
/** The chances of pressing, marking and being set, over time; the clean window shaded where there is one. */
export function RaceChart({ curve, wire, today }: { curve: RaceCurve; wire: PlanWire; today: string }) {
  useTheme();
  const ink = tone('--color-neutral');
  const shown = weeksOfRace(curve.days, wire, today);
  const days = curve.days.slice(0, shown);
  const ticks = monthTicks(days);
  const line = (label: string, data: (number | null)[], colour: string, dash: number[] = []) => ({
    label,
    data: data.slice(0, shown).map((v) => (v === null ? null : v * 100)),
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: 2,
    borderDash: dash,
    pointRadius: 0,
    tension: 0.2,
  });
  const todayLine: AnnotationOptions = {
    type: 'line',
    xMin: weekOf(days, today),
    xMax: weekOf(days, today),
    borderColor: tone('--color-primary'),
    borderWidth: 2,
    label: {
      display: true,
      content: 'today',
      position: 'end',
      backgroundColor: tone('--color-base-200'),
      color: tone('--color-primary'),
      padding: 2,
      font: { size: 13, weight: 'bold' },
    },
  };
  const window: AnnotationOptions[] = wire.cleanWindow
    ? [
        {
          type: 'box',
          xMin: weekOf(days, wire.cleanWindow.from),
          xMax: weekOf(days, wire.cleanWindow.to),
          backgroundColor: `color-mix(in srgb, ${tone('--color-accent')} 22%, transparent)`,
          borderWidth: 0,
        },
      ]
    : [];
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    font: { family: tone('--font-sans') },
    interaction: { mode: 'index', intersect: false },
    scales: {
      x: {
        ticks: { color: ink, maxRotation: 0, autoSkip: false, font: { size: 14 }, callback: (_, i) => ticks[i] },
        grid: { display: false },
      },
      y: { min: 0, max: 100, ticks: { color: ink, stepSize: 25, callback: (v) => `${v}%`, font: { size: 14 } }, grid: { color: tone('--color-base-300') } },
    },
    plugins: {
      tooltip: {
        callbacks: { title: (items) => sayDate(days[items[0]!.dataIndex]!), label: (item) => `${item.dataset.label}: ${(item.parsed.y ?? 0).toFixed(0)}%` },
      },
      annotation: { annotations: [todayLine, ...window] },
    },
  };
  const sets = [
    line('touching', curve.touching, tone('--color-warning'), [2, 3]),
    line('marking', curve.marking, tone('--color-error')),
    ...(curve.set.some((v) => v !== null) ? [line('set', curve.set, tone('--color-accent'), [7, 4])] : []),
  ];
  return (
    <figure>
      <div className="h-44">
        <Line data={{ labels: days, datasets: sets }} options={options} aria-label={'Chances over time of touching, marking and being set'} />
      </div>
      <figcaption className="mt-1 flex flex-wrap gap-x-4 text-[0.94rem]">
        {sets.map((s) => (
          <span key={s.label} className="flex items-center gap-1.5">
            <svg width="24" height="4" aria-hidden="true">
              <line x1="0" x2="24" y1="2" y2="2" stroke={s.borderColor} strokeWidth="3" strokeDasharray={s.borderDash.join(' ')} />
            </svg>
            {s.label}
          </span>
        ))}
        <span className="text-quiet">chance, in percent</span>
      </figcaption>
    </figure>
  );
}
