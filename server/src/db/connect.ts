import { Sequelize } from 'sequelize';

/** A pool on one database. SQL is never logged: it would carry people's words into the log. */
export function connect(url: string): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 8, min: 0, idle: 10_000, acquire: 10_000 },
    define: { underscored: true, timestamps: false, freezeTableName: true },
    dialectOptions: { application_name: 'ruddy-bridge' },
  });
}
