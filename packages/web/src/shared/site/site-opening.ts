import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { SiteStore } from '../../state/site';

/** Stands in place of what is made of the site until it was read: nothing can be changed before, and nothing is said to be missing. */
@Component({
  selector: 'ty-site-opening',
  imports: [MatButtonModule],
  template: `
    @if (site.status() === 'failed') {
      <p role="alert">
        The site cannot be read. {{ site.message() }} <button mat-button type="button" (click)="site.load()">Try again</button>
      </p>
    } @else {
      <p role="status">Opening the site …</p>
    }
  `,
  styles: `
    p {
      padding: 20px;
      color: var(--ty-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SiteOpening {
  protected readonly site = inject(SiteStore);
}
