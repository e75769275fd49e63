import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { originOf, toPointer, type Json } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from './edit';

/** The rules that are not about one element: addresses, elements without a rule, comments, how deep things may be nested. */
@Component({
  selector: 'ty-rest-of-markup',
  templateUrl: './rest-of-markup.html',
  styleUrl: './rest-of-markup.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RestOfMarkup {
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = inject(Store).selectSignal(workshopFeature.selectResolved);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly markup = computed(() => this.resolved()?.profile.markup ?? null);
  protected readonly failure = signal('');
  protected readonly schemes = computed(() => {
    const schemes = this.markup()?.urls.schemes ?? {};
    const what: Record<string, string> = {
      href: 'Links may lead to',
      src: 'Pictures and frames may come from',
      cite: 'Quotations may name as source',
    };
    return [...new Set(['href', 'src', 'cite', ...Object.keys(schemes)])].map((attribute) => ({
      attribute,
      label: what[attribute] ?? `${attribute} may have`,
      text: (schemes[attribute] ?? ['https', 'http']).join(' '),
      setBy: this.setBy(['urls', 'schemes', attribute]),
    }));
  });

  protected setBy(keys: string[]): string {
    const resolved = this.resolved();
    if (resolved === null) return '';
    const origin = originOf(resolved.chain, toPointer(['markup', ...keys]));
    return origin === undefined ? 'default' : origin === resolved.id ? 'here' : (this.names().get(origin) ?? origin);
  }

  protected setSchemes(attribute: string, text: string): void {
    const schemes = text
      .toLowerCase()
      .split(/[\s,]+/)
      .map((scheme) => scheme.replace(/:(\/\/)?$/, ''))
      .filter((scheme) => scheme !== '');
    const wrong = schemes.find((scheme) => !/^[a-z][a-z0-9+.-]*$/.test(scheme));
    if (wrong !== undefined) {
      this.failure.set(`“${wrong}” cannot be a scheme. Write the part before the colon, such as https or mailto.`);
      return;
    }
    this.set(['urls', 'schemes', attribute], schemes, `Schemes of ${attribute}`);
  }

  protected setNesting(text: string): void {
    const limit = Number(text);
    if (!Number.isInteger(limit) || limit < 1 || limit > 500) {
      this.failure.set('The deepest nesting is a whole number from 1 to 500. Browsers flatten what is nested deeper than 512.');
      return;
    }
    this.set(['limits', 'nesting'], limit, 'Deepest nesting');
  }

  protected set(keys: string[], value: Json, label: string): void {
    this.failure.set('');
    this.edit.set(['markup', ...keys], value, label);
  }
}
