import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { FeedModel } from './feed';
import type { Published } from '@ruddy/core/workshop';
import type { NewsEntry } from '@ruddy/core/workshop/contract';
import {
  instant,
  json,
  optional,
  primary,
  references,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** One item of a release feed. */
export class FeedItemModel extends Model<
  InferAttributes<FeedItemModel>,
  InferCreationAttributes<FeedItemModel>
> {
  declare id: string;
  declare feedId: string;
  declare key: string;
  declare body: Published;
  declare publishedAt: Date | null;
  declare readAt: Date;
  declare state: CreationOptional<NewsEntry['state']>;
  declare releaseId: string | null;
  declare feed?: NonAttribute<FeedModel>;
}

export function defineFeedItem(sequelize: Sequelize): void {
  FeedItemModel.init(
    {
      id: primary(uuid()),
      feedId: references('feeds', 'CASCADE'),
      key: text(),
      body: json(),
      publishedAt: optional(instant()),
      readAt: instant(),
      state: withDefault(text(), 'new'),
      releaseId: optional(references('parts', 'SET NULL')),
    },
    { sequelize, tableName: 'feed_items' },
  );
}
