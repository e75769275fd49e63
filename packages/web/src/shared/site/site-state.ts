import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { SiteStore } from '../../state/site';

/** How the site stands: saved or not, what can be taken back, why it was not saved. */
@Component({
  selector: 'ty-site-state',
  imports: [MatButtonModule, RouterLink],
  template: `
    <p class="said" role="status" [class.amiss]="site.refusal() !== ''">{{ words() }}</p>
    @if (site.theirs()) {
      <button mat-button type="button" (click)="site.takeTheirs()">Take theirs</button>
      <button mat-button type="button" (click)="site.keepMine()">Keep mine</button>
    }
    <button mat-button type="button" [disabled]="!site.canUndo()" (click)="site.undo()">Undo</button>
    <button mat-button type="button" [disabled]="!site.canRedo()" (click)="site.redo()">Redo</button>
    <button mat-stroked-button type="button" [disabled]="!site.isChanged() || site.isSaving()" (click)="site.save()">Save</button>
    @if (site.isAhead()) {
      <a mat-flat-button routerLink="/writing/release">Release…</a>
    } @else {
      <a mat-stroked-button routerLink="/writing/release">Editions</a>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 4px;
      min-width: 0;
      margin-left: auto;
    }
    .said {
      margin-right: 6px;
      max-width: 380px;
      color: var(--ty-soft);
      font-size: 12px;
      line-height: 16px;
    }
    .amiss {
      padding-left: 10px;
      border-left: 2px solid var(--ty-rubric);
      color: var(--ty-rubric);
    }
  `,
  host: { '(window:keydown)': 'key($event)', '(window:beforeunload)': 'beforeUnload($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SiteState {
  protected readonly site = inject(SiteStore);
  protected readonly words = computed(() => {
    if (this.site.draft() === null) return '';
    if (this.site.isSaving()) return 'Saving …';
    if (this.site.refusal() !== '') return `Not saved. ${this.site.refusal()}`;
    if (this.site.isChanged()) return 'Changed, not saved';
    return this.site.isAhead() ? 'Saved, not released' : 'As it holds';
  });

  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey)) return;
    const isTyping = (event.target as HTMLElement).closest?.('input, textarea, [contenteditable]') !== null;
    switch (event.key.toLowerCase()) {
      case 's':
        event.preventDefault();
        if (this.site.isChanged()) void this.site.save();
        break;
      case 'z':
        if (isTyping) return;
        event.preventDefault();
        if (event.shiftKey) this.site.redo();
        else this.site.undo();
        break;
    }
  }

  protected beforeUnload(event: BeforeUnloadEvent): void {
    if (this.site.isChanged()) event.preventDefault();
  }
}
