import { LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

// What our charts are made of, and no more of the package.
echarts.use([AriaComponent, GridComponent, LegendComponent, LineChart, ScatterChart, SVGRenderer, TooltipComponent]);

export default echarts;
