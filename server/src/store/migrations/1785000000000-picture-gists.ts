import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Pictures in few colours, computed from their cells: thousands are put in order for a sheet by them. Derived data: nothing
 * is recorded, and a picture that is read again loses its own.
 */
export class PictureGists1785000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE picture_gists (
         pictureId TEXT PRIMARY KEY REFERENCES pictures(id) ON DELETE CASCADE,
         gist BLOB NOT NULL CHECK (length(gist) >= 404)) WITHOUT ROWID`,
    );
    await runner.query(
      `CREATE TRIGGER pictures_gist_stale AFTER UPDATE OF cells ON pictures
       BEGIN DELETE FROM picture_gists WHERE pictureId = NEW.id; END`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TRIGGER pictures_gist_stale');
    await runner.query('DROP TABLE picture_gists');
  }
}
