import type { ReleaseSpec, SoftwareRole } from '../../parts';

/** A release as its publisher states it in the feed's own words for it. */
export interface Stated {
  readonly what: SoftwareRole;
  readonly maker: string;
  readonly model: string;
  readonly version: string;
  readonly releasedOn: string;
  readonly fixes: readonly string[];
}
/** One item of a feed, as plain text. */
export interface Published {
  /** What its publisher knows it by. */
  readonly key: string;
  readonly title: string;
  readonly url: string;
  readonly text: string;
  /** ISO instant; null: not said. */
  readonly publishedAt: string | null;
  readonly stated: Stated | null;
}
/** A part of the catalogue as news may speak of it. */
export interface NewsPart {
  readonly id: string;
  readonly kind: 'host' | 'dock' | 'card' | 'system';
  readonly maker: string;
  readonly model: string;
  readonly variant: string;
  readonly family: string;
  /** Somebody here has one, or it stands in a setup in use. */
  readonly here: boolean;
}
/** A part an item speaks of, and how sure that is: its publisher states it, or its name stands in the text. */
export interface Touch {
  readonly id: string;
  readonly name: string;
  readonly here: boolean;
  readonly by: 'stated' | 'name';
}
export interface NewsMatch {
  readonly touches: readonly Touch[];
  /** Logged symptoms it speaks of. */
  readonly symptoms: readonly string[];
  /** What a release in the catalogue would say; null where no part or version can be told. */
  readonly draft: ReleaseSpec | null;
}
