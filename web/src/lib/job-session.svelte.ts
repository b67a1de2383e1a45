import { noteSettings } from '@kerbe/core/cuts/settings-origin';
import { sentenceOf } from '@kerbe/core/schema/told';
import { proxy } from 'comlink';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { type CutJob, JobSchema } from '@kerbe/core/job/job';
import { settled } from '@kerbe/core/document/targets';
import { sentenceFor } from '@kerbe/core/schema/sentence-for';
import { dropUnsaved, keepUnsaved, unsavedOf } from '$lib/unsaved';
import type { OpenJob, SaveOutcome } from '$lib/server/jobs';
import { sameStep } from '$lib/same-step';
import { lastField, StepsByField } from '$lib/steps-by-field';
import { Refusal, send } from '$lib/send';
import { ComputeThread, ThreadEnded } from '$lib/workers/compute-thread';
import type { ComputeWorker } from '$lib/workers/compute.worker';
import type { CutView, ItemView, JobView } from '$lib/workers/job-view';

/** Changes of the same thing that follow each other within this time, ms, are kept as one revision. */
const SETTLE = 350;

/** A thread that has not heard of something new after this, ms, is at something that does not end. */
const STUCK_AFTER = 4000;

/** What takes longer, ms, shows how far it is. */
const SHOWN_AFTER = 500;

/** Who cancels waits no longer than this, ms. */
const CANCELLED_WITHIN = 400;

/** Whether a request failed by something that passes: no answer, or a server or database that is being started. */
const passing = (error: unknown) => error instanceof Refusal && (error.status === 0 || error.status >= 500);

/** One window's work on one job: the document, its saving, its undoing, and what the worker computed from it. */
export class JobSession {
  job = $state.raw<CutJob>()!;
  revision = $state('');
  canUndo = $state(false);
  canRedo = $state(false);
  saving = $state<'kept' | 'waiting' | 'failed'>('kept');
  problem = $state<string>();
  /** Two windows changed the job: the revision kept aside, and what the other window made of it. */
  conflict = $state.raw<{ mine: string; theirs: OpenJob }>();
  view = $state.raw<JobView>();
  /** The artwork as it lies on the sheet, which is known before its cuts are worked out. */
  items = $state.raw<ItemView[]>([]);
  /** Which sending of artwork this is; none of a thread that was begun anew. */
  private has = NaN;
  /** The document that `view` was computed from. */
  viewOf = $state.raw<CutJob>();
  progress = $state<{ share: number; doing: string }>();
  cancelled = $state(false);
  private readonly thread = new ComputeThread();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private flight: Promise<void> | undefined;
  /** States that are to be kept before `job`: each is a revision of its own, however long the server takes. */
  private parted: CutJob[] = [];
  /** The state that was sent last, that before the last change of the document, and when that was made, ms. */
  private lastSent: CutJob | undefined;
  private changedFrom: CutJob | undefined;
  private changedAt = 0;
  private computing = 0;
  /** In which fields the steps that this page made were made. */
  readonly stepsByField = new StepsByField();
  private steps: Promise<void> = Promise.resolve();
  private readonly channel: BroadcastChannel;

  constructor(open: OpenJob) {
    this.id = open.id;
    this.take(open, true);
    this.channel = new BroadcastChannel(`kerbe-job-${open.id}`);
    this.channel.onmessage = () => void this.catchUp();
    void this.takeUp(open);
  }
  readonly id: string;

  private take(open: OpenJob, first = false): void {
    this.job = open.job;
    this.revision = open.revision;
    this.canUndo = open.canUndo;
    this.canRedo = open.canRedo;
    this.saving = 'kept';
    this.parted = [];
    void (first ? this.showKept() : Promise.resolve()).then(() => {
      if (this.job === open.job) void this.compute();
    });
  }

  /** Goes on with what an earlier page changed and did not get to the server. */
  private async takeUp(open: OpenJob): Promise<void> {
    const left = await unsavedOf(open.id);
    // What this page has changed meanwhile counts.
    if (!left || this.job !== open.job) return;
    dropUnsaved(open.id);
    if (JSON.stringify(left.job) === JSON.stringify(JobSchema.parse(open.job))) return;
    this.revision = left.base;
    this.set(left.job);
  }

  /** Shows what the job came to when it was computed last, until it is computed again. */
  private async showKept(): Promise<void> {
    const { job } = this;
    const kept = await this.ask('kept', job);
    if (!kept || this.job !== job) return;
    this.items = kept.items;
    this.view = kept.view;
    this.viewOf = job;
  }

  /** Whether what is drawn belongs to the document as it is now. */
  get current(): boolean {
    return this.view !== undefined && this.viewOf === this.job;
  }

  /** Changes the document. What the schema does not allow is said and not done. */
  update(change: (draft: CutJob) => void): void {
    const draft = structuredClone(this.job);
    this.hold(draft);
    change(draft);
    this.set(draft);
  }

  /** Cuts of documents that knew shapes by their numbers hold on to them by marks before anything changes. */
  private hold(draft: CutJob): void {
    if (!this.current) return;
    for (const { id, shapes } of this.items)
      for (const cut of draft.cuts) cut.targets = settled(cut.targets, id, shapes);
  }

  /** Applies a remedy, as a revision of its own: what was changed just before is kept first, so that undo parts them. */
  async apply(patch: Operation[]): Promise<void> {
    await this.save();
    this.set(jsonPatch.applyPatch(structuredClone(this.job), patch).newDocument);
  }

  private set(next: CutJob): void {
    noteSettings(this.job, next);
    const parsed = JobSchema.safeParse(next);
    if (!parsed.success) {
      this.problem = `This was not changed: ${sentenceFor(parsed.error, this.job.unit)}`;
      return;
    }
    this.problem = undefined;
    const now = performance.now();
    const waits = this.saving === 'waiting' && this.job !== this.lastSent;
    const goesOn = waits && now - this.changedAt <= SETTLE && sameStep(this.changedFrom!, this.job, parsed.data);
    if (waits && !goesOn) this.parted.push(this.job);
    if (!goesOn) this.stepsByField.made(lastField());
    this.changedAt = now;
    this.changedFrom = this.job;
    this.job = parsed.data;
    this.canUndo = true;
    this.canRedo = false;
    this.saving = 'waiting';
    keepUnsaved(this.id, this.revision, this.job);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), SETTLE);
    void this.compute();
  }

  /** Saves what is waiting; resolves when the server has it. */
  async save(): Promise<void> {
    clearTimeout(this.timer);
    while (this.flight) await this.flight;
    if (this.saving === 'kept' || this.conflict) return;
    const job = this.parted.shift() ?? this.job;
    this.lastSent = job;
    await this.fly(async () => {
      try {
        const outcome = await send<SaveOutcome>('PUT', `/api/jobs/${this.id}`, { base: this.revision, job });
        if (outcome.saved) {
          this.revision = outcome.open.revision;
          this.canUndo = outcome.open.canUndo;
          this.canRedo = outcome.open.canRedo;
          if (this.job === job) {
            this.saving = 'kept';
            dropUnsaved(this.id);
          } else {
            // What comes after it waits still, where it had failed before, too.
            this.saving = 'waiting';
            keepUnsaved(this.id, this.revision, this.job);
          }
          this.channel.postMessage(this.revision);
        } else {
          this.conflict = { mine: outcome.mine, theirs: outcome.theirs };
          this.parted = [];
          dropUnsaved(this.id);
        }
        this.problem = undefined;
      } catch (error) {
        this.saving = 'failed';
        // What comes after it has all of it.
        this.lastSent = undefined;
        this.problem = sentenceOf(error);
        // What cannot be reached now is tried again; what was refused would be refused again.
        if (passing(error)) this.timer = setTimeout(() => void this.save(), 1500);
      }
    });
    if (this.saving === 'waiting' && !this.conflict && this.job !== job) await this.save();
  }

  /** One request at a time: each starts from the revision that the one before left. */
  private async fly(request: () => Promise<void>): Promise<void> {
    this.flight = request();
    await this.flight;
    this.flight = undefined;
  }

  /** After another window saved: follow it, unless something of this window waits. */
  private async catchUp(): Promise<void> {
    if (this.saving !== 'kept' || this.conflict) return;
    const open = await send<OpenJob>('GET', `/api/jobs/${this.id}`).catch(() => undefined);
    if (!open || this.saving !== 'kept' || open.revision === this.revision) return;
    this.stepsByField.forget();
    this.take(open);
  }

  /** Settles a conflict: this window's version counts, or the other's. Both stay among the revisions. */
  async settle(which: 'mine' | 'theirs'): Promise<void> {
    const { conflict } = this;
    if (!conflict) return;
    const waiting = this.job;
    this.stepsByField.forget();
    if (which === 'theirs') {
      this.conflict = undefined;
      this.take(conflict.theirs);
    } else {
      let outcome: SaveOutcome;
      try {
        outcome = await send<SaveOutcome>('POST', `/api/jobs/${this.id}/choose`, {
          base: conflict.theirs.revision,
          revision: conflict.mine,
        });
      } catch (error) {
        this.problem = sentenceOf(error);
        return;
      }
      // The other window was quicker once more: it is asked again, over what counts now.
      if (!outcome.saved) {
        this.conflict = { mine: outcome.mine, theirs: outcome.theirs };
        return;
      }
      const { open } = outcome;
      this.conflict = undefined;
      this.take(open);
      if (JSON.stringify(waiting) !== JSON.stringify(open.job)) this.set(waiting);
    }
    this.channel.postMessage(this.revision);
  }

  /**
   * Undoes or redoes one revision. Steps asked for quickly follow each other; a change made meanwhile is kept.
   * @param field asked for in this one: only what was done in it is taken.
   */
  step(direction: 'undo' | 'redo', field = ''): Promise<void> {
    this.steps = this.steps.then(() => this.takeStep(direction, field));
    return this.steps;
  }

  private async takeStep(direction: 'undo' | 'redo', field: string): Promise<void> {
    await this.save();
    // Asked only now: several presses may follow each other before the first of them is taken.
    if (field !== '' && !this.stepsByField.belongs(field, direction)) return;
    if (this.conflict || this.saving === 'failed' || !(direction === 'undo' ? this.canUndo : this.canRedo)) return;
    const shown = this.job;
    await this.fly(async () => {
      try {
        const open = await send<OpenJob>('POST', `/api/jobs/${this.id}/${direction}`, { base: this.revision });
        this.stepsByField.took(direction);
        if (this.job === shown) this.take(open);
        else this.revision = open.revision;
        this.channel.postMessage(this.revision);
      } catch (error) {
        this.problem = sentenceOf(error);
      }
    });
  }

  async compute(): Promise<void> {
    const job = this.job;
    const started = performance.now();
    this.cancelled = false;
    const wanted = () => this.job === job && !this.cancelled;
    // What is still computed for an older state of the job gives way; where it does not hear of that, it is ended.
    const stuck = setTimeout(() => wanted() && !heard && this.computing > 1 && this.thread.restart(), STUCK_AFTER);
    let heard = false;
    // What hears nothing while it lasts has told only that it has begun.
    let told: typeof this.progress;
    const late = setTimeout(() => wanted() && (this.progress = told), SHOWN_AFTER);
    this.computing++;
    try {
      const view = await this.thread.ask(
        'compute',
        job,
        proxy((share: number, doing: string) => {
          heard = true;
          told = share < 1 ? { share, doing } : undefined;
          if (wanted() && performance.now() - started > SHOWN_AFTER) this.progress = told;
        }),
        proxy((items: ItemView[], turn: number) => {
          heard = true;
          if (!wanted()) return;
          this.items = items;
          this.has = turn;
        }),
        this.has,
        proxy((cut: string, marks: CutView['marks']) => {
          heard = true;
          if (!wanted() || !this.view) return;
          const cuts = this.view.cuts.map((part) => (part.cut === cut ? { ...part, marks } : part));
          this.view = { ...this.view, cuts };
        }),
      );
      if (!view || !wanted()) return;
      this.view = view;
      this.viewOf = job;
    } catch (error) {
      if (error instanceof ThreadEnded) {
        if (wanted()) void this.compute();
      } else if (wanted()) {
        this.problem =
          'Something is wrong in Kerbe itself: this job could not be computed. Undo the last change and go on.';
        console.error(error);
      }
    } finally {
      clearTimeout(stuck);
      clearTimeout(late);
      this.computing--;
      if (this.job === job) this.progress = undefined;
    }
  }

  /** Asks the thread that computes; undefined where it was ended meanwhile. */
  async ask<K extends Exclude<keyof ComputeWorker, 'compute'>>(
    name: K,
    ...args: Parameters<ComputeWorker[K]>
  ): Promise<Awaited<ReturnType<ComputeWorker[K]>> | undefined> {
    try {
      return await this.thread.ask(name, ...args);
    } catch (error) {
      if (error instanceof ThreadEnded) return undefined;
      throw error;
    }
  }

  /** Gives up the computing that goes on, whatever it is at; the next change starts it again. */
  async cancel(): Promise<void> {
    this.cancelled = !this.current;
    this.progress = undefined;
    const ended = setTimeout(() => this.thread.restart(), CANCELLED_WITHIN);
    await this.ask('cancel');
    clearTimeout(ended);
  }

  close(): void {
    if (this.saving !== 'kept') void this.save();
    this.channel.close();
    this.thread.end();
  }
}
