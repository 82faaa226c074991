import { Sequelize } from 'sequelize';

/** One pool on one role. Short timeouts: a database that is away should be told within seconds. */
export function connect(url: string, poolSize = 5): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: poolSize, min: 0, acquire: 6000, idle: 10_000 },
    dialectOptions: { connectionTimeoutMillis: 4000, statement_timeout: 15_000 },
  });
}
