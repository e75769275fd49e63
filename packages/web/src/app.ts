import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { filter, map } from 'rxjs';
import { Acting } from './state/acting';
import { LibraryActions, libraryFeature } from './state/library';
import { NameBadge } from './shared/site/name-badge';
import { Dialogs } from './ui/dialogs';

/** A chapter of the index on the left. */
interface Chapter {
  link: string;
  /** Views that belong to it and stand elsewhere. */
  also?: readonly string[];
  label: string;
  drawing: string;
}

/** The frame: a slim index on the left, like the thumb index of a book, and the sheet. */
@Component({
  selector: 'ty-root',
  imports: [MatButtonModule, NameBadge, RouterLink, RouterOutlet],
  templateUrl: './app.html',
  styleUrl: './app.scss',
  host: { '(window:keydown)': 'key($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class App {
  private readonly store = inject(Store);
  protected readonly dialogs = inject(Dialogs);
  private readonly acting = inject(Acting);
  protected readonly status = this.store.selectSignal(libraryFeature.selectStatus);
  protected readonly message = this.store.selectSignal(libraryFeature.selectMessage);
  private readonly router = inject(Router);
  /** Where in the application somebody is, without what is asked for there. */
  private readonly place = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(({ urlAfterRedirects }) => urlAfterRedirects.replace(/[?#].*$/, '')),
    ),
    { initialValue: '' },
  );
  protected readonly chapters: readonly Chapter[] = [
    { link: '/profiles', also: ['/house-limits', '/compare'], label: 'Profiles', drawing: 'M4 3h9l3 3v11H4zM7 9h6M7 12h6' },
    { link: '/types', label: 'Fields', drawing: 'M3 4h14v4H3zM3 11h9v4H3z' },
    { link: '/writing', label: 'Writers', drawing: 'M4 16l2-5 8-8 3 3-8 8-5 2zM12 5l3 3' },
    { link: '/styles', label: 'Styles', drawing: 'M4 16 9 4h2l5 12M6.500 11.500h7' },
    { link: '/specimens', label: 'Specimens', drawing: 'M8 3h4M9 3v5l-5 8h12l-5-8V3M6.500 12h7' },
    { link: '/write', also: ['/where'], label: 'Desk', drawing: 'M3 14h14M5 14v3M15 14v3M5 14V5h7l3 3v6M8 9h4M8 11.500h4' },
    { link: '/site', label: 'Site', drawing: 'M3 4h14v12H3zM3 7h14' },
  ];

  /** Whether somebody is in a chapter, or in what belongs to it. */
  protected isIn({ link, also = [] }: Chapter): boolean {
    const place = this.place();
    return [link, ...also].some((path) => place === path || place.startsWith(`${path}/`));
  }

  constructor() {
    this.load();
  }

  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey || event.key.toLowerCase() !== 'k') return;
    event.preventDefault();
    if (this.status() === 'ready') void this.find();
  }

  protected async find(): Promise<void> {
    if (await this.dialogs.isAnyOpen()) return;
    await this.dialogs.open(async () => (await import('./features/finder/finder')).Finder, {
      width: '620px',
      maxWidth: '94vw',
      position: { top: '12vh' },
      ariaLabel: 'Find anything',
    });
  }

  protected load(): void {
    this.store.dispatch(LibraryActions.requested());
    void this.acting.load();
  }
}
