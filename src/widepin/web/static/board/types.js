// Types that the parts of the board hand each other; nothing here runs.

/** @import { Figure } from "../figure/figure.js" */
/** @import { ToolBook } from "../figure/tape.js" */
/** @import { Hit, Allowance, Operation, Place, Places, Step, Use, Wanted } from "../figure/types.js" */
/** @import { View } from "../figure/view.js" */
/** @import { Store } from "./construction/store.js" */
/** @import { Hand } from "./tools/hand.js" */

/**
 * A blank of a tool's sentence. there: no new point is put for it. again: may be one that is in the sentence already.
 * own: of the student's own alone. as: its name in a class tool.
 * @typedef {{kind: string, there?: boolean, again?: boolean, own?: boolean, kinds?: string[], as?: string}} Blank
 */

/** @typedef {{name: string, takes: {name: string, kind: string}[], steps: Step[], gives: string[], moves: number,
 *   figure: {given: Step[], steps: Step[], answer: string[]}}} ClassTool */

/**
 * A tool: its sentence, its card, and what it makes. most: how often it may be used, null for any number.
 * @typedef {{make: string, say: (string | Blank)[], group?: string, name?: string, icon?: string, keeps?: number[],
 *   different?: number[][], order?: number[] | null, draws?: string, inTasks?: string, gauge?: boolean, pairs?: number,
 *   most?: number | null, isForeign?: boolean, opening?: string[], classTool?: ClassTool, costs?: string,
 *   drawing?: () => Element[]}} Tool
 */

/** @typedef {Hit} Offer  What a click would take. */

/** @typedef {{store: Store, hand: Hand, tools: Tool[], view: View}} Where  What offers are found among. */

/** @typedef {{key: string, operation: Operation}} Entry  An operation that is stored or waits to be. */

/** @typedef {(make: string, taken: Set<string>) => string} NewId  A name that is free for what a make gives. */

/**
 * What keeps operations: Saving, or Drafting for what a teacher draws.
 * @typedef {{pending: Entry[], trouble?: import("./construction/saving.js").Trouble | null, add: (operation: Operation) => void, replace: (pending: Entry[]) => void,
 *   settled: (within?: number) => Promise<boolean>, flush: () => void, fill?: (body: FormData) => void, follow?: (number: number) => void,
 *   importSteps?: (url: string, work: unknown) => Promise<any>}} Saver
 */

/** @typedef {{part: string, url: string, then: string}} Draft  The part of a task that a teacher draws. */

/**
 * What a board is opened with, as the server has put it on the page.
 * @typedef {{given: Step[], start: Step[], log: Entry[], tools: Allowance[], class_tools?: ClassTool[],
 *   measuring: boolean, wanted: Wanted[], finding: boolean, budget: number | null, loci?: boolean, extent?: Place[], taken?: string[],
 *   student?: number, draft?: Draft, standing?: any, left_out?: string[], hints?: {left: number, cost: number}, urls: Record<string, string>}} Setting
 */

/** @typedef {{label?: string, hidden?: boolean, style?: string, weight?: string, hue?: string, name_at?: Place,
 *   ticks?: number}} Dress  What an object looks like. */

/**
 * What can be done with an object from its row or its menu. Dressing is false where a name is taken.
 * @typedef {{dress: (id: any, dress: Dress) => unknown, remove: (id: any) => void, ask: (id: string | null) => void,
 *   remake?: any, tryOut?: any, hideRest?: any, opened?: any}} OnDressing
 */

/** @typedef {Omit<OnDressing, "dress" | "ask"> & {dressed: (id: string, dress: Dress) => unknown,
 *   first: (id: string) => unknown, last: (id: string) => unknown, isTold: (id: string) => boolean,
 *   closed: () => void}} OnObjects */

/** @typedef {Omit<OnDressing, "ask" | "dress"> & {dress: (id: string, dress: Dress) => unknown, highlighted: (id: string | null) => void, chosen: () => void,
 *   picked: (id: string) => boolean, opened: (id: string) => void, actions: (id: string) => unknown}} OnSteps */

/** @typedef {string | {filled: string, place: number} | {next: string, offer?: string} | {open: true}} Part  A part of the
 * sentence. place: which of its blanks it is. */

/** @typedef {{rel: string, of: any[]}} Claim  What the student believes of the figure. */

/** @typedef {{of: string[][], claim: Claim, number: number | null}} Equality  number: of the group that is equal, null for
 * what is not equal in every position. */

/**
 * What a drag takes hold of. move: where the pointer is, how far from where it went down, in pixels, and whether with
 * Shift; whoever calls it paints after it. drop keeps what was moved, letGo keeps nothing.
 * @typedef {{isThere: () => boolean, letGo: () => void, move: (place: Place, dx: number, dy: number, isFree: boolean) => void,
 *   drop: () => unknown}} Grip
 */

/** @typedef {{position: string, points: Places}} Position  A position of the figure that is kept. */

/** @typedef {"left" | "right" | "top" | "bottom"} Side */

/** @typedef {{name: string, at: Place, side: Side}} Off  Something that lies off the paper. */

/**
 * What the looks of objects depend on. resultRole(id): its role in a result that is shown, or null.
 * @typedef {{store: Store, hand: Hand, pointed: {offer: Offer | null, highlighted: string | null},
 *   isSelected: (id: string) => boolean, resultRole: (id: string) => string | null, showsArcs: boolean}} RolesOf
 */

/**
 * What is told of storing. state: words, whether they are trouble, and an address to sign in again at or null.
 * @typedef {{stored: (entry: any) => void, missed: (entries: Entry[]) => void,
 *   refused: (entry: Entry | null, words: string) => void,
 *   state: (words: string, isTrouble: boolean, signIn?: string | null) => void}} OnSaving
 */

/**
 * @typedef {{url: string, place: string, stored: Entry[], on: OnSaving}} SavingOptions  place: where this browser keeps
 * what is not stored yet. stored: the operations that the server has, with their keys.
 */

export {};
