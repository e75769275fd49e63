import { withinBudget } from '../css/budget';
import { Comparer, type Origin } from './compare';
import { Scene } from './context';
import { explain, type Scenes } from './explain';
import { misfits } from './fit';
import { causeOf, causeOfMisfit, MOST_STEPS, originElements, type LikenessInput } from './likeness';

/** What a comparison came to, without its places. */
export interface LikenessCount {
  /** How many elements were compared. */
  elements: number;
  /** How many of them look the same. */
  alike: number;
  /** What makes one cause the same as another: counted over several documents, each once. */
  causes: string[];
}

/** Counts how alike documents are in two settings. It keeps no places, so it needs no more room than one document. */
export class LikenessCounter {
  private readonly scenes: Scenes;
  private readonly comparer: Comparer;
  private readonly explained = new WeakMap<Origin, string>();

  constructor(private readonly input: LikenessInput) {
    const editing = new Set(input.editingSheets ?? []);
    this.scenes = { editor: new Scene(input.editor), page: new Scene(input.page), isEditing: (sheet) => editing.has(sheet) };
    this.comparer = new Comparer(this.scenes.editor, this.scenes.page);
  }

  /**
   * @param html clean markup
   * @throws TooMuch where it would take too long with these stylesheets, or is nested too deep
   */
  count(html: string): LikenessCount {
    return withinBudget(MOST_STEPS, 'The stylesheets with this document', () => this.counted(html)).result;
  }

  private counted(html: string): LikenessCount {
    const placed = this.comparer.place(html);
    const causes = new Set<string>();
    let [unlike, last] = [0, -1];
    for (const { origin, index } of this.comparer.differences(placed)) {
      if (index !== last) unlike++;
      last = index;
      let cause = this.explained.get(origin);
      if (cause === undefined) {
        const elements = originElements([placed[0].elements[index]!, placed[1].elements[index]!], origin);
        this.explained.set(origin, (cause = causeOf(explain(origin, elements, this.scenes))));
      }
      causes.add(cause);
    }
    for (const side of ['page', 'editor'] as const)
      for (const misfit of misfits(this.scenes[side], placed[side === 'editor' ? 0 : 1], this.input.naturalWidth))
        causes.add(causeOfMisfit(side, misfit));
    const elements = placed[0].elements.length;
    return { elements, alike: elements - unlike, causes: [...causes] };
  }
}
