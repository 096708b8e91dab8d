import { z } from 'zod';
import { LAB_PAGES } from './lab-pages';
import { SOURCES } from './words';

/** What a line or an area of a drawing means; the theme says how it looks. */
export const TONES = ['ink', 'soft', 'this', 'other', 'warn', 'field', 'runway', 'paint', 'card', 'sky'] as const;
export type Tone = (typeof TONES)[number];
const Coordinate = z.number().min(-20_000).max(20_000);
const FigureShape = z.object({
  points: z
    .array(z.tuple([Coordinate, Coordinate]))
    .min(1)
    .max(600),
  tone: z.enum(TONES),
  closed: z.boolean().optional(),
  width: z.number().min(0).max(40).optional(),
  dashed: z.boolean().optional(),
});
export type FigureShape = z.infer<typeof FigureShape>;
const FigureText = z.object({
  x: Coordinate,
  y: Coordinate,
  text: z.string().max(160),
  tone: z.enum(TONES),
  anchor: z.enum(['start', 'middle', 'end']),
});
export type FigureText = z.infer<typeof FigureText>;
export const Figure = z.object({
  w: z.number().min(10).max(4000),
  h: z.number().min(10).max(4000),
  shapes: z.array(FigureShape).max(400),
  texts: z.array(FigureText).max(80),
});
export type Figure = z.infer<typeof Figure>;

/** What a page is set to, as its address has it. */
export const LabQuery = z
  .string()
  .max(2000)
  .regex(/^[^\s<>"]*$/, 'Not an address of the lab.');

/** A page of the lab as it was put into a brief: what it said, drew and worked with. */
export const LabNote = z.object({
  id: z.string().min(1).max(60),
  page: z.enum(LAB_PAGES),
  query: LabQuery,
  of: z.string().max(120),
  answer: z.string().min(1).max(400),
  facts: z
    .array(
      z.object({
        name: z.string().max(120),
        value: z.string().max(80),
        source: z.enum(SOURCES).nullable(),
        ref: z.string().max(200),
      }),
    )
    .max(40),
  figure: Figure,
});
export type LabNote = z.infer<typeof LabNote>;
