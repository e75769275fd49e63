import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { EChartsCoreOption } from 'echarts/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';

/** A set of rules: how much it allows, weighed by risk, and the share of texts that it keeps whole, from 0 to 1. */
export interface FitPoint {
  risk: number;
  kept: number;
  /** What is told of it, line by line. */
  told: readonly string[];
}

/** The way from least privilege to everything, and a profile beside it. Whoever shows it gives the same values as a table, too. */
@Component({
  selector: 'ty-fit-chart',
  imports: [NgxEchartsDirective],
  template: `<div echarts class="chart" role="img" [attr.aria-label]="label()" [options]="options()" (chartClick)="choose($event)"></div>`,
  styles: `
    .chart {
      width: 100%;
      height: 270px;
    }
  `,
  providers: [provideEchartsCore({ echarts: () => import('./echarts').then((module) => module.default) })],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FitChart {
  readonly label = input.required<string>();
  readonly steps = input.required<readonly FitPoint[]>();
  readonly chosen = input.required<number>();
  /** The profile that stands beside the way; null for none. */
  readonly present = input<FitPoint | null>(null);
  readonly chose = output<number>();

  protected readonly options = computed((): EChartsCoreOption => {
    const [steps, chosen, present] = [this.steps(), this.chosen(), this.present()];
    const colour = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(`--ty-${name}`).trim();
    const text = { color: colour('soft'), fontFamily: colour('sans'), fontSize: 12 };
    const axis = { axisLabel: text, nameTextStyle: text, axisLine: { lineStyle: { color: colour('line') } } };
    const percent = ({ kept }: FitPoint): number => kept * 100;
    const told = (points: readonly FitPoint[]) => ({
      tooltip: { formatter: ({ dataIndex }: { dataIndex: number }) => points[dataIndex]?.told.join('\n') ?? '' },
    });
    return {
      animation: false,
      grid: { left: 56, right: 24, top: 18, bottom: 46 },
      xAxis: {
        type: 'value',
        name: 'What is allowed, weighed by risk',
        nameLocation: 'middle',
        nameGap: 28,
        min: 0,
        splitLine: { show: false },
        ...axis,
      },
      yAxis: {
        type: 'value',
        min: 0,
        max: 100,
        splitLine: { lineStyle: { color: colour('hair') } },
        ...axis,
        axisLabel: { ...text, formatter: '{value}%' },
      },
      tooltip: {
        trigger: 'item',
        backgroundColor: colour('sheet'),
        borderColor: colour('line'),
        textStyle: { ...text, color: colour('ink') },
        renderMode: 'richText',
      },
      series: [
        {
          name: 'way',
          type: 'line',
          step: 'end',
          symbol: 'circle',
          symbolSize: (_: unknown, { dataIndex }: { dataIndex: number }) => (dataIndex === chosen ? 13 : 6),
          itemStyle: {
            color: ({ dataIndex }: { dataIndex: number }) => (dataIndex === chosen ? colour('ink') : colour('verdigris')),
          },
          lineStyle: { color: colour('verdigris'), width: 1.6 },
          areaStyle: { color: colour('verdigris-wash') },
          data: steps.map((point) => [point.risk, percent(point)]),
          ...told(steps),
        },
        ...(present === null
          ? []
          : [
              {
                name: 'present',
                type: 'scatter',
                symbol: 'diamond',
                symbolSize: 16,
                itemStyle: { color: colour('rubric') },
                label: { show: true, position: 'bottom', distance: 8, formatter: present.told[0] ?? '', ...text, color: colour('ink') },
                data: [[present.risk, percent(present)]],
                ...told([present]),
              },
            ]),
      ],
    };
  });

  protected choose(event: unknown): void {
    const { seriesName, dataIndex } = event as { seriesName?: string; dataIndex?: number };
    if (seriesName === 'way' && dataIndex !== undefined) this.chose.emit(dataIndex);
  }
}
