import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import type { EChartsCoreOption } from 'echarts/core';

export interface TimePoint {
  at: Date;
  value: number;
  /** What is told of it, line by line. */
  told: readonly string[];
}

/** Values over time: each holds until the next. Whoever shows it gives the same values as a table, too. */
@Component({
  selector: 'ty-time-chart',
  imports: [NgxEchartsDirective],
  template: `<div echarts class="chart" role="img" [attr.aria-label]="label()" [options]="options()"></div>`,
  styles: `
    .chart {
      width: 100%;
      height: 240px;
    }
  `,
  providers: [provideEchartsCore({ echarts: () => import('./echarts').then((module) => module.default) })],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TimeChart {
  readonly label = input.required<string>();
  readonly points = input.required<readonly TimePoint[]>();
  /** The least and the most that the axis shows. */
  readonly range = input.required<readonly [min: number, max: number]>();
  /** A value as it is written at the axis. */
  readonly written = input.required<(value: number) => string>();
  private readonly dates = new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

  protected readonly options = computed((): EChartsCoreOption => {
    const [points, written, [min, max]] = [this.points(), this.written(), this.range()];
    const colour = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(`--ty-${name}`).trim();
    const text = { color: colour('soft'), fontFamily: colour('sans'), fontSize: 12 };
    return {
      animation: false,
      grid: { left: 52, right: 18, top: 16, bottom: 28 },
      xAxis: { type: 'time', axisLabel: { ...text, hideOverlap: true }, axisLine: { lineStyle: { color: colour('line') } } },
      yAxis: {
        type: 'value',
        min,
        max,
        axisLabel: { ...text, formatter: written },
        splitLine: { lineStyle: { color: colour('hair') } },
      },
      tooltip: {
        trigger: 'axis',
        backgroundColor: colour('sheet'),
        borderColor: colour('line'),
        textStyle: { ...text, color: colour('ink') },
        renderMode: 'richText',
        formatter: (shown: readonly { dataIndex: number }[]) => {
          const point = points[shown[0]?.dataIndex ?? -1];
          return point === undefined ? '' : [this.dates.format(point.at), written(point.value), ...point.told].join('\n');
        },
      },
      series: [
        {
          type: 'line',
          step: 'end',
          symbol: 'circle',
          symbolSize: 7,
          itemStyle: { color: colour('verdigris') },
          lineStyle: { color: colour('verdigris'), width: 1.6 },
          data: points.map(({ at, value }) => [at.getTime(), value]),
        },
      ],
    };
  });
}
