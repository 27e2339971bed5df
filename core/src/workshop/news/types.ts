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
  /** Id of the item in its feed. */
  readonly key: string;
  readonly title: string;
  readonly url: string;
  readonly text: string;
  /** ISO instant; null: not given. */
  readonly publishedAt: string | null;
  readonly stated: Stated | null;
}
/** A part of the catalogue, as matched with release items. */
export interface NewsPart {
  readonly id: string;
  readonly kind: 'host' | 'dock' | 'card' | 'system';
  readonly maker: string;
  readonly model: string;
  readonly variant: string;
  readonly family: string;
  /** Owned here, or in a setup in use. */
  readonly here: boolean;
}
/** A part named by an item, and how sure the match is: stated by the publisher, or found in the text. */
export interface Touch {
  readonly id: string;
  readonly name: string;
  readonly here: boolean;
  readonly by: 'stated' | 'name';
}
export interface NewsMatch {
  readonly touches: readonly Touch[];
  /** Logged symptoms that the item mentions. */
  readonly symptoms: readonly string[];
  /** What a release in the catalogue would say; null where no part or version can be told. */
  readonly draft: ReleaseSpec | null;
}
