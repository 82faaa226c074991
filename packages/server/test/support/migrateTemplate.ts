import { connect } from '../../src/database/connect.ts';
import { migrate } from '../../src/database/migrate.ts';

const owner = connect(process.env.VEGLIA_OWNER_DATABASE_URL ?? '', 3);
await migrate(owner, 'veglia_app');
await owner.close();
