import pg from 'pg';
import { Sequelize } from 'sequelize';

// Counts come as bigint text otherwise; none of ours exceeds 2^53. Dates stay the days they are.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
pg.types.setTypeParser(pg.types.builtins.DATE, (day) => day);

/** A pool of connections to PostgreSQL. */
export function connect(url: string): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    dialectModule: pg,
    logging: false,
    pool: { max: 8, min: 0, acquire: 8000, idle: 10_000 },
    dialectOptions: { connectionTimeoutMillis: 5000 },
    define: { timestamps: false, underscored: true, freezeTableName: true },
  });
}
