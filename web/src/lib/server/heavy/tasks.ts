import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { ArtworkError } from '@kerbe/core/artwork/artwork-error';
import { importArtwork, pageOfArtwork } from '@kerbe/core/artwork/formats/formats';
import { JobSchema } from '@kerbe/core/job/job';
import { VariantSchema } from '@kerbe/core/machines/program-variant';
import { bytesFromBase64, JobFileError, readJobFile } from '@kerbe/core/job/job-file';
import { clipperFromDisk } from '@kerbe/machine/core-from-disk';
import { assetsOf, hashOf, keepAsset } from '../assets.ts';
import { openOnce } from '../database.ts';
import { createJob, revisionOf, saveJob } from '../jobs.ts';
import { makePrograms } from '../programs.ts';
import { Refused } from '../refusal.ts';
import { drawPrint, drawThumbnail } from '../thumbnails.ts';

const SaveSchema = z.object({ base: z.string().regex(/^\d{1,18}$/), job: JobSchema });

/** Work that takes long or much memory, each done in a process of its own: files lie on disk, the rest in the database. */
export const TASKS = {
  /** Keeps a drawing, after seeing that it is one; what its outlines are is read where they are needed. */
  async drawing(file: string, name: string) {
    const bytes = await readFile(file);
    const page = pageOfArtwork(bytes);
    return { hash: await keepAsset(openOnce(), name, bytes), ...page };
  },

  /** Makes a job from a job file; its artwork is read as if it were imported by hand. */
  async jobFile(file: string) {
    const { job, assets } = readJobFile(await readText(file));
    const wanted = assetsOf(job);
    const clipper = await clipperFromDisk();
    const kept: { name: string; bytes: Uint8Array }[] = [];
    for (const hash of wanted) {
      const asset = Object.hasOwn(assets, hash) ? assets[hash] : undefined;
      if (!asset) throw new JobFileError('The file lacks a drawing that its job refers to; export it again.');
      const bytes = bytesFromBase64(asset.base64);
      if (hashOf(bytes) !== hash)
        throw new JobFileError('The artwork in this file does not match what the job refers to; export it again.');
      try {
        importArtwork(bytes, clipper);
      } catch (error) {
        if (!(error instanceof ArtworkError)) throw error;
        throw new ArtworkError(`Of this job’s artwork, “${asset.name}” cannot be used. ${error.message}`);
      }
      kept.push({ name: asset.name, bytes });
    }
    const db = openOnce();
    for (const { name, bytes } of kept) await keepAsset(db, name, bytes);
    return { id: (await createJob(db, job)).id };
  },

  /** Saves a job document that is too large to be read beside everything else; the outcome comes as JSON. */
  async save(file: string, id: string) {
    const { base, job } = SaveSchema.parse(parsed(await readText(file)));
    const outcome = await saveJob(openOnce(), id, base, job);
    return { saved: outcome.saved, text: JSON.stringify(outcome) };
  },

  async thumbnail(id: string, revision: string) {
    return drawThumbnail(openOnce(), await revisionOf(openOnce(), id, revision));
  },

  async print(id: string, revision: string) {
    return drawPrint(openOnce(), await revisionOf(openOnce(), id, revision));
  },

  /** Makes a revision's programs and lays them out for the runner. */
  async programs(id: string, revision: string, date: string, variant: string) {
    return makePrograms(openOnce(), id, revision, date, VariantSchema.parse(JSON.parse(variant)));
  },
} satisfies Record<string, (...args: string[]) => Promise<unknown>>;

export type TaskName = keyof typeof TASKS;
export type Found<N extends TaskName> = Awaited<ReturnType<(typeof TASKS)[N]>>;

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Refused('This could not be read as JSON.', 400);
  }
}

async function readText(file: string): Promise<string> {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(await readFile(file));
  } catch (error) {
    if (error instanceof TypeError) throw new Refused('This file is not text in UTF-8; export it again.', 422);
    throw error;
  }
}
