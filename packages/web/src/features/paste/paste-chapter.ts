import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { LiveAnnouncer } from '@angular/cdk/a11y';
import { ChangeDetectionStrategy, Component, ElementRef, computed, effect, inject } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import type { PassTrace } from '@typikon/core';
import { PASS_WORDS, type PassId, passOrder, sourceName, valueAt } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { GripVertical } from 'lucide';
import { BenchActions, benchFeature } from '../../state/bench';
import { countOf, overtakenWords, passNumber } from '../../state/paste-words';
import { isAtWork, PasteSurvey } from '../../state/paste-survey';
import { workshopFeature } from '../../state/workshop';
import { Icon } from '../../ui/icon';
import { ProfileEdit } from '../../shared/profile/edit';
import { CompareDialog } from './compare-dialog';
import { MatrixDialog } from './matrix-dialog';
import { PassSettings } from './pass-settings';

/** A pass as the ladder shows it. */
interface Rung {
  id: PassId;
  number: string;
  label: string;
  effect: string;
  isOn: boolean;
  /** What it did to what is on the bench: a number or a word, and a remark below. */
  figure: string;
  unit: string;
  /** What has to be known of it: that it works in vain, or never. */
  note: string;
  isFinding: boolean;
}

/** §3 Paste: the passes as a ladder, with what each did to the markup on the bench. */
@Component({
  selector: 'ty-paste-chapter',
  imports: [
    MatSelectModule,
    MatFormFieldModule,
    MatCheckboxModule,
    MatButtonModule,
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    Icon,
    PassSettings,
  ],
  templateUrl: './paste-chapter.html',
  styleUrl: './paste-chapter.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PasteChapter {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly dialog = inject(MatDialog);
  private readonly announcer = inject(LiveAnnouncer);
  private readonly survey = inject(PasteSurvey);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly icons = { grip: GripVertical };
  protected readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  private readonly detected = this.store.selectSignal(benchFeature.selectDetected);
  protected readonly kind = this.store.selectSignal(benchFeature.selectKind);
  protected readonly arrives = this.store.selectSignal(benchFeature.selectArrives);
  protected readonly chosen = this.store.selectSignal(benchFeature.selectPass);
  protected readonly sourceName = sourceName;

  private readonly order = computed(() => {
    const resolved = this.resolved();
    return resolved === null ? [] : passOrder(resolved);
  });
  protected readonly paste = computed(() => this.resolved()?.profile.paste ?? null);
  protected readonly marks = computed(() => {
    const { evidence } = this.detected();
    const kind = this.kind();
    return evidence.filter(({ source }) => source === kind).map(({ mark }) => mark);
  });
  protected readonly rules = computed(() => this.proof()?.paste?.rules ?? null);
  protected readonly rungs = computed((): Rung[] => {
    const paste = this.paste();
    if (paste === null) return [];
    const order = this.order();
    const trace = new Map(this.proof()?.paste?.trace.map((step) => [step.pass, step]));
    const overtaken = new Map(this.survey.overtaken().map((one) => [one.pass, one]));
    const worksOn = this.survey.worksOn();
    const would = this.survey.would();
    return order.map((id): Rung => {
      const { label, effect } = PASS_WORDS[id];
      const step = trace.get(id);
      const vain = overtaken.get(id);
      const isIdle = worksOn !== null && isAtWork(paste.passes, id) && !worksOn.has(id);
      return {
        id,
        number: passNumber(order, id),
        label,
        effect,
        isOn: paste.passes[id].on,
        ...figureOf(id, step, paste.passes[id].on, would?.[id]),
        note:
          vain !== undefined && (vain.how === 'undone' || id === this.chosen())
            ? overtakenWords(vain)
            : isIdle
              ? 'It does nothing on any specimen.'
              : '',
        isFinding: vain?.how === 'undone',
      };
    });
  });

  constructor() {
    // A pass that was chosen from the ledger comes into view.
    effect(() => {
      const pass = this.chosen();
      if (pass !== null) setTimeout(() => this.host.querySelector(`[data-pass="${pass}"]`)?.scrollIntoView({ block: 'nearest' }));
    });
  }

  protected choose(pass: PassId): void {
    this.store.dispatch(BenchActions.passChosen({ pass: this.chosen() === pass ? null : pass }));
  }

  protected toggle(pass: PassId, isOn: boolean): void {
    this.edit.set(['paste', 'passes', pass, 'on'], isOn, `${PASS_WORDS[pass].label} ${isOn ? 'on' : 'off'}`);
  }

  protected chooseWhat(choice: string): void {
    this.edit.set(['paste', 'choice'], choice, 'What a paste becomes');
  }

  protected setMarkdown(isRead: boolean): void {
    this.edit.set(['paste', 'markdown'], isRead, isRead ? 'Markdown is read' : 'Markdown stays text');
  }

  protected dropped({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.move(previousIndex, currentIndex);
  }

  /** Moves a pass by the arrow keys on its handle. */
  protected key(event: KeyboardEvent, index: number): void {
    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (by === 0) return;
    event.preventDefault();
    const pass = this.order()[index]!;
    if (!this.move(index, index + by)) return;
    // The handle goes along with its pass.
    setTimeout(() => this.host.querySelector<HTMLElement>(`[data-pass="${pass}"] .grip`)?.focus());
  }

  private move(from: number, to: number): boolean {
    const order = [...this.order()];
    if (to < 0 || to >= order.length || from === to) return false;
    const label = PASS_WORDS[order[from]!].label;
    moveItemInArray(order, from, to);
    this.edit.set(['paste', 'order'], order, `Moving ${label}`);
    void this.announcer.announce(`${label} is number ${to + 2} of ${order.length + 1} now.`);
    return true;
  }

  protected readonly hasOwnOrder = computed(() => valueAt(this.draft(), ['paste', 'order']) !== undefined);

  protected usualOrder(): void {
    this.edit.reset(['paste', 'order'], 'Back to the usual order');
  }

  protected showAll(): void {
    this.dialog.open(MatrixDialog, { width: '1120px', maxWidth: '96vw', maxHeight: '94vh' });
  }

  protected compare(): void {
    this.dialog.open(CompareDialog, { width: '1160px', maxWidth: '96vw', maxHeight: '94vh' });
  }

  protected bytesOf(bytes: number): string {
    return sizeWords(bytes);
  }
}

function figureOf(id: PassId, step: PassTrace | undefined, isOn: boolean, would: number | undefined): { figure: string; unit: string } {
  if (step === undefined) return { figure: isOn ? '' : 'off', unit: '' };
  const offered = step.offers === 0 ? '' : `would find ${step.offers}`;
  if (step.rests === 'off')
    return { figure: 'off', unit: would === undefined ? '' : would === 0 ? 'would find nothing' : `would find ${would}` };
  if (step.rests === 'source') return { figure: '–', unit: 'not for this source' };
  if (step.changes === 0) return { figure: '0', unit: offered === '' ? 'nothing here' : offered };
  const delta = step.bytesAfter - step.bytesBefore;
  return {
    figure: step.changes.toLocaleString('en-GB'),
    unit: [countOf(id, step.changes), delta === 0 ? '' : sizeWords(delta)].filter((part) => part !== '').join(', '),
  };
}

/** A difference in bytes: "−8.8 kB". */
function sizeWords(bytes: number): string {
  const sign = bytes < 0 ? '−' : '+';
  const size = Math.abs(bytes);
  return `${sign}${size < 1000 ? `${size} B` : size < 1e6 ? `${(size / 1000).toFixed(1)} kB` : `${(size / 1e6).toFixed(1)} MB`}`;
}
