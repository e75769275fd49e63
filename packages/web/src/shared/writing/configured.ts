import { Directive, effect, ElementRef, inject, input } from '@angular/core';
import type { EditorConfiguration, TypikonEditor } from '@typikon/editor';

/** Gives an author's editor its configuration and its text, once it is there. */
@Directive({ selector: 'typikon-editor[tyConfiguration]', exportAs: 'tyEditor' })
export class Configured {
  readonly tyConfiguration = input.required<EditorConfiguration>();
  readonly tyText = input('');

  private readonly element = inject<ElementRef<TypikonEditor>>(ElementRef).nativeElement;

  /** The markup as it stands there now. */
  get value(): string {
    return this.element.value;
  }

  constructor() {
    let isBegun = false;
    effect(() => {
      const [configuration, text] = [this.tyConfiguration(), this.tyText()];
      // What the author types is not put back; another text or profile makes another element.
      if (isBegun) return;
      isBegun = true;
      this.element.value = text;
      this.element.configuration = configuration;
    });
  }
}
