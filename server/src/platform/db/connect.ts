import pg from 'pg';
import { Sequelize } from 'sequelize';

/**
 * pg emits `error` on a client before the pool listens; unhandled, it ends the process. This listener marks the
 * client as the pool does, so that it is not used.
 */
class GuardedClient extends pg.Client {
  _invalid = false;

  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => {
      this._invalid = true;
    });
  }
}

/** Longest wait for a connection of the pool, ms; tests set it for the machine they run on. */
const acquireMs = () => Number(process.env['RUDDY_DB_WAIT_MS'] ?? 10_000);

const INT8 = 20;
// Counts and amounts of money are bigints in the database and fit a number; one that does not is refused, never rounded.
pg.types.setTypeParser(INT8, (text) => {
  const value = Number(text);
  if (!Number.isSafeInteger(value)) throw new RangeError(`${text} does not fit a number`);
  return value;
});

/** A pool on one database. SQL is never logged: it would carry people's words into the log. */
export function connect(url: string): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 8, min: 0, idle: 10_000, acquire: acquireMs() },
    define: { underscored: true, timestamps: false, freezeTableName: true },
    dialectModule: { ...pg, Client: GuardedClient },
    dialectOptions: { application_name: 'ruddy-bridge' },
  });
}
